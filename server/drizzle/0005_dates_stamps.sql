ALTER TABLE `crews` ADD COLUMN IF NOT EXISTS `dates` varchar(10) DEFAULT 'dayFirst' NOT NULL;--> statement-breakpoint
UPDATE `crews` SET `dates` = 'monthFirst' WHERE `lengths` = 'inch';--> statement-breakpoint
ALTER TABLE `saws` ADD COLUMN IF NOT EXISTS `bar_stamp` varchar(40);--> statement-breakpoint
ALTER TABLE `crews` DROP CONSTRAINT IF EXISTS `crews_dates`;--> statement-breakpoint
ALTER TABLE `crews` ADD CONSTRAINT IF NOT EXISTS `crews_dates` CHECK (`crews`.`dates` in ('dayFirst', 'monthFirst', 'yearFirst'));
