package app.knottag.server.machine;

import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Which backups were made, as the script notes it. */
@Mapper
interface BackupStore {

    record FailedRow(Instant at, String why) {}

    @Select("select 1")
    int answers();

    @Select("select max(made_at) from backup where failed is null")
    Optional<Instant> last();

    @Select("select max(rehearsed_at) from backup")
    Optional<Instant> rehearsed();

    @Select("select made_at as at, failed as why from backup where failed is not null order by made_at desc limit 1")
    Optional<FailedRow> failed();

    /** When there was first something to back up. */
    @Select("select at from log_entry where id = 1")
    Optional<Instant> first();

    record JumpRow(Instant at, long seconds) {}

    @Select("""
            select at, (after->>'seconds')::bigint as seconds from log_entry
            where action = 'clock jumped' order by id desc limit 1""")
    Optional<JumpRow> jump();

    @Select("select at from log_entry order by id desc limit 1")
    Optional<Instant> lastEntry();
}
