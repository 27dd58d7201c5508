-- Pictures and fonts are kept once, under the hash of their content, and served by range. What stood as text in scenes is
-- taken out by the application (see UPGRADES).
create table files (
  name text primary key,
  title text not null,
  size integer not null,
  added_at timestamptz not null,
  -- What is in it: a picture's size, a font's family.
  facts jsonb not null default '{}',
  body bytea not null
);
-- A part of a body is read without unpacking all of it.
alter table files alter column body set storage external;

create table file_uses (
  scene_id text not null references scenes (id),
  file text not null,
  layers integer not null,
  primary key (scene_id, file)
);
create index file_uses_of_file on file_uses (file);
