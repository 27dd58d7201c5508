-- Looks and palettes are items of the library. Those that a new library begins with are added to libraries of before by the
-- application (see UPGRADES).
comment on column items.kind is 'preset, rig, look, palette, curve, house or recipe';
