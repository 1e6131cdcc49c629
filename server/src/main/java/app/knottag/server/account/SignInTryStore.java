package app.knottag.server.account;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** How many tries at signing in did not succeed, by whom they were for and from where. */
@Mapper
interface SignInTryStore {

    record TryRow(
            byte[] key, int tries, Instant lastAt, @Nullable Instant knownAt) {}

    /** Holds these keys until the transaction ends, always in the same order, and tells how they stand. */
    @Select("""
            <script>insert into sign_in_try (key, tries, last_at)
            select k, 0, #{now} from (values
            <foreach item="key" collection="keys" separator=",">(#{key}::bytea)</foreach>) as v (k) order by k
            on conflict (key) do update set tries = sign_in_try.tries returning key, tries, last_at, known_at</script>""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<TryRow> hold(@Param("keys") List<byte[]> keys, @Param("now") Instant now);

    @Update("update sign_in_try set tries = #{tries}, last_at = #{at} where key = #{key}")
    void count(@Param("key") byte[] key, @Param("tries") int tries, @Param("at") Instant at);

    @Update("update sign_in_try set known_at = #{at} where key = #{key}")
    void known(@Param("key") byte[] key, @Param("at") Instant at);

    @Delete("""
            delete from sign_in_try where key in (select key from sign_in_try where last_at < #{tried}
            and (known_at is null or known_at < #{known}) order by key for update skip locked)""")
    void forget(@Param("tried") Instant tried, @Param("known") Instant known);
}
