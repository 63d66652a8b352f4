-- Footage used where it lies on the machine: never copied, never written to.
alter table clip modify column origin enum ('UPLOAD', 'DEMO', 'LINK') not null;
alter table clip modify column stored varchar(4096) not null comment 'name inside the media folder, or the whole path of a linked file';
