-- A run now keeps what it did to each layer, and the preset as it was used. Of runs that were applied before, the keys
-- that stand are taken as what they made, and the others with those they replaced as what stood before.
update runs set body = (body - 'replaced' - 'moved') || jsonb_build_object(
  'preset', jsonb_build_object(
    'id', body -> 'preset' ->> 'id',
    'revision', (body -> 'preset' ->> 'revision')::integer,
    'name', coalesce(
      (select content ->> 'name' from revisions
       where item_id = body -> 'preset' ->> 'id' and revision = (body -> 'preset' ->> 'revision')::integer),
      body -> 'preset' ->> 'id'
    ),
    'body', coalesce(
      (select content -> 'body' from revisions
       where item_id = body -> 'preset' ->> 'id' and revision = (body -> 'preset' ->> 'revision')::integer),
      '{}'
    )
  ),
  'steps', coalesce(
    (select jsonb_agg(jsonb_build_object('layer', step.layer, 'tracks', step.tracks))
     from (
       select layers.id as layer, jsonb_agg(jsonb_build_object(
         'channel', track.key,
         'before', (
           select coalesce(jsonb_agg(old.one order by (old.one ->> 'at')::numeric), '[]')
           from (
             select standing.one from jsonb_array_elements(track.value) as standing (one)
             where coalesce(standing.one -> 'by' ->> 'run', '') <> runs.id
             union all
             select replaced.one
             from jsonb_array_elements(coalesce(runs.body -> 'replaced', '[]')) as gone (entry),
               jsonb_array_elements(gone.entry -> 'keys') as replaced (one)
             where gone.entry ->> 'layer' = layers.id and gone.entry ->> 'channel' = track.key
           ) as old
         ),
         'after', track.value
       )) as tracks
       from layers, jsonb_each(layers.body -> 'tracks') as track
       where layers.scene_id = runs.scene_id
         and track.value @> jsonb_build_array(jsonb_build_object('by', jsonb_build_object('run', runs.id)))
       group by layers.id
     ) as step),
    '[]'
  )
)
where not body ? 'steps';
