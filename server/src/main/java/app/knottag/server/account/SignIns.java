package app.knottag.server.account;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Who came in and who did not. What was typed as a name may have been a password, so only people on record are named. */
@Mapper
interface SignIns {

    enum What {
        ENTERED,
        LEFT,
        /** The password was wrong. */
        REFUSED,
        /** The password was right, and the account is closed. */
        CLOSED,
        /** Too many wrong tries. */
        SLOWED
    }

    @Insert("insert into sign_in (person_id, caller, what) values (#{person}, #{caller}, #{what})")
    void add(@Param("person") @Nullable Long person, @Param("caller") String caller, @Param("what") What what);

    /** @param person null when nobody of that name is on record */
    record SignInLine(long id, Instant at, @Nullable String person, String caller, What what) {}

    @Select("""
            select i.id, i.at, p.name as person, i.caller, i.what from sign_in i left join person p on p.id = i.person_id
            where i.id < #{below} order by i.id desc limit 100""")
    List<SignInLine> lines(long below);

    /** Of nobody on record so many are kept at most: whoever tries names can fill no disk. */
    @Delete("""
            delete from sign_in where at < now() - interval '120 days' or person_id is null
              and id < (select id from sign_in where person_id is null order by id desc offset 5000 limit 1)""")
    void forget();
}
