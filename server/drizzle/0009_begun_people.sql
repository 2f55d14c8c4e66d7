ALTER TABLE `entries` DROP CONSTRAINT IF EXISTS `entries_kind`;--> statement-breakpoint
ALTER TABLE `people` ADD COLUMN IF NOT EXISTS `weak_side` varchar(5);--> statement-breakpoint
ALTER TABLE `people` ADD COLUMN IF NOT EXISTS `gone` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `entries` ADD CONSTRAINT IF NOT EXISTS `entries_kind` CHECK (`entries`.`kind` in ('registered', 'specChanged', 'retagged', 'fitted', 'takenOff', 'moved', 'sentOut', 'cameBack', 'ran', 'struck', 'measured', 'sharpened', 'gaugesLowered', 'begun', 'noticed', 'looked', 'traced', 'inspected', 'retired', 'dutyChanged', 'decided', 'corrected'));--> statement-breakpoint
ALTER TABLE `people` ADD CONSTRAINT IF NOT EXISTS `people_weak_side` CHECK (`people`.`weak_side` in ('left', 'right'));