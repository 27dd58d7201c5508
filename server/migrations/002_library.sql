-- What holds for all revisions of an item moves to the item; revisions keep what never changes.
alter table items add column tags jsonb not null default '[]';
alter table items add column collection text;
alter table items add column retired boolean not null default false;

update items set
  retired = (state = 'retired'),
  tags = coalesce(
    (select content -> 'tags' from revisions
     where revisions.item_id = items.id and revisions.revision = items.current_revision),
    '[]'
  );
alter table items drop column state;

update revisions set content = content - 'format' - 'id' - 'kind' - 'tags' - 'state';

-- The draft of an item's next revision. current_revision 0 stands for an item of which nothing is published.
create table drafts (
  item_id text primary key references items (id),
  content jsonb not null,
  in_review boolean not null,
  version integer not null
);

create table item_changes (
  id bigint generated always as identity primary key,
  item_id text not null,
  by_whom text not null,
  at timestamptz not null,
  what text not null
);
create index item_changes_of_item on item_changes (item_id, id);

-- Published revisions never change, whoever asks.
create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'Published revisions never change.';
end
$$;
create trigger revisions_never_change before update or delete on revisions
  for each row execute function refuse_change();
create trigger revisions_are_never_emptied before truncate on revisions
  for each statement execute function refuse_change();

-- What runs use, beside their bodies, so that asking for it need not read those.
alter table runs add column preset_id text generated always as (body -> 'preset' ->> 'id') stored;
alter table runs add column preset_revision integer
  generated always as ((body -> 'preset' ->> 'revision')::integer) stored;
alter table runs add column layer_count integer generated always as (jsonb_array_length(body -> 'layers')) stored;
alter table runs add column uses jsonb generated always as (coalesce(body -> 'uses', '[]'::jsonb)) stored;
create index runs_of_preset on runs (preset_id);
