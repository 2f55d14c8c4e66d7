ALTER TABLE `saw_entries` DROP CONSTRAINT IF EXISTS `saw_entries_kind`;--> statement-breakpoint
ALTER TABLE `saws` MODIFY COLUMN `pitch_class` varchar(16);--> statement-breakpoint
ALTER TABLE `saws` MODIFY COLUMN `gauge_um` int;--> statement-breakpoint
ALTER TABLE `saws` MODIFY COLUMN `drive_links` smallint;--> statement-breakpoint
ALTER TABLE `saw_entries` ADD CONSTRAINT IF NOT EXISTS `saw_entries_kind` CHECK (`saw_entries`.`kind` in ('barFitted', 'fitRead', 'barFlipped', 'barChecked', 'railsDressed', 'putBack', 'tensionLooked', 'oilFilled', 'hoursSaid', 'sprocketRenewed', 'sawRenamed', 'sawGone', 'sawBack', 'sawCorrected'));