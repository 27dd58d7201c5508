-- Where curves of the library are used by keys that are linked to them: how many layers of a scene have such keys. What
-- the scenes of before use is noted by the application (see UPGRADES).
create table item_uses (
  scene_id text not null references scenes (id),
  item_id text not null,
  revision integer not null,
  layers integer not null,
  primary key (scene_id, item_id, revision)
);
create index item_uses_of_item on item_uses (item_id);
