-- The fonts and masks of words before they were split count as used, so that they can be joined again. What the scenes of
-- before use is noted by the application (see UPGRADES).
comment on table file_uses is 'Which files layers of a scene use: as they are, without their runs, and before they were split.';
