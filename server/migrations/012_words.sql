-- Words can be typed letter by letter, and show numbers that run. The presets and rigs for that are added to libraries of
-- before by the application (see UPGRADES).
comment on table items is 'what the library holds, by its id; what it says stands in its revisions and drafts';
