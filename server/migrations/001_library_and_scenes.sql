create table items (
  id text primary key,
  kind text not null,
  state text not null,
  current_revision integer not null,
  created_at timestamptz not null
);

create table revisions (
  item_id text not null references items (id),
  revision integer not null,
  content jsonb not null,
  published_at timestamptz not null,
  primary key (item_id, revision)
);

create table scenes (
  id text primary key,
  header jsonb not null,
  version integer not null,
  created_at timestamptz not null,
  changed_at timestamptz not null,
  deleted_at timestamptz
);

create table layers (
  scene_id text not null references scenes (id),
  id text not null,
  depth integer not null,
  body jsonb not null,
  version integer not null,
  primary key (scene_id, id)
);

create table runs (
  scene_id text not null references scenes (id),
  id text not null,
  place integer not null,
  body jsonb not null,
  version integer not null,
  primary key (scene_id, id)
);

-- One line for each save: who changed what from which version on, so that a later window can be told.
create table scene_changes (
  scene_id text not null references scenes (id),
  version integer not null,
  by_whom text not null,
  at timestamptz not null,
  what text not null,
  header boolean not null,
  layers jsonb not null,
  removed_layers jsonb not null,
  primary key (scene_id, version)
);
