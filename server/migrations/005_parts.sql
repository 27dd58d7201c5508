-- Layers and runs are kept packed, in chunks of bounded size. What was stored before is read by the application itself
-- (scenes/upgrade.ts), in the same transaction.
alter table layers rename to layers_before;
alter table runs rename to runs_before;
drop index runs_of_preset;

alter table scenes add column layer_count integer not null default 0;

-- One packed list for each scene: its layers from back to front, what they belong to, and in which chunk each is.
create table outlines (
  scene_id text primary key references scenes (id),
  body bytea not null
);

-- A layer counts where the outline says that it is; in other chunks it is one of before.
create table layer_chunks (
  scene_id text not null references scenes (id),
  chunk integer not null,
  body bytea not null,
  primary key (scene_id, chunk)
);

create table runs (
  scene_id text not null references scenes (id),
  id text not null,
  place integer not null,
  off boolean not null,
  preset_id text,
  preset_revision integer,
  layer_count integer not null,
  uses jsonb not null,
  version integer not null,
  primary key (scene_id, id)
);
create index runs_of_preset on runs (preset_id);

create table run_slices (
  scene_id text not null,
  run_id text not null,
  slice integer not null,
  body bytea not null,
  primary key (scene_id, run_id, slice),
  foreign key (scene_id, run_id) references runs (scene_id, id) on delete cascade
);

-- Parts of a save that is under way; they count only when it is done, and are swept when it never is.
create table upload_parts (
  upload_id text not null,
  part integer not null,
  at timestamptz not null,
  chunks jsonb not null,
  runs jsonb not null,
  primary key (upload_id, part)
);

create table upload_bodies (
  upload_id text not null,
  part integer not null,
  place integer not null,
  body bytea not null,
  primary key (upload_id, part, place),
  foreign key (upload_id, part) references upload_parts (upload_id, part) on delete cascade
);
