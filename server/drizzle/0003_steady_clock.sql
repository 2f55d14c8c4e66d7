CREATE TABLE IF NOT EXISTS `clock` (
	`id` int NOT NULL,
	`steady_ms` bigint NOT NULL,
	`wall_ms` bigint NOT NULL,
	CONSTRAINT `clock_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `sessions` ADD COLUMN IF NOT EXISTS `seen_steady_ms` bigint;