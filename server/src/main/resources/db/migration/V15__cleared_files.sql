-- Files that were sent out may be taken off the disk; what is known of them stays.
alter table render
    add column cleared_at datetime(6) null comment 'when its file was taken off the disk';
