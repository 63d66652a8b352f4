-- How fast each model treats input pixels on this machine, measured when it is first wanted.
create table model_speed (
    model            varchar(40) not null,
    mode             varchar(20) not null,
    pixels_a_second  double not null,
    measured_at      datetime(6) not null,
    primary key (model, mode)
);
