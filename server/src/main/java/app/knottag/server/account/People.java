package app.knottag.server.account;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** People who may sign in, and invitations to become one. */
@Mapper
interface People {

    record Row(long id, String name, Role role, String passwordHash, int epoch) {}

    /** What counts on each request. */
    record Now(String name, Role role, int epoch) {}

    record Unkeyed(long id, String name) {}

    /** By how the name looks: blanks, capitals and look-alike letters make no other person. */
    @Select("select id, name, role, password_hash, epoch from person where name_key = #{key}")
    Row find(String key);

    @Select("select name, role, epoch from person where id = #{id}")
    Now now(long id);

    @Select("select count(*) from person")
    int count();

    @Insert("insert into person (name, name_key, role, password_hash) values (#{name}, #{key}, #{role}, #{hash})")
    void add(
            @Param("name") String name, @Param("key") String key, @Param("role") Role role, @Param("hash") String hash);

    @Select("select id, name from person where name_key is null order by id")
    List<Unkeyed> unkeyed();

    @Update("update person set name_key = #{key} where id = #{id}")
    void key(@Param("id") long id, @Param("key") String key);

    @Insert(
            "insert into invitation (token_hash, role, expires_at, first_lead) values (#{hash}, #{role}, #{expires}, #{first})")
    void invite(
            @Param("hash") byte[] hash,
            @Param("role") Role role,
            @Param("expires") Instant expires,
            @Param("first") boolean first);

    @Update("update invitation set withdrawn_at = now() where first_lead and used_at is null and withdrawn_at is null")
    void withdrawFirst();

    @Select("""
            select role from invitation where token_hash = #{hash} and used_at is null and withdrawn_at is null and expires_at > now()
                and (not first_lead or not exists (select 1 from person))""")
    Role invited(byte[] hash);

    @Update("""
            update invitation set used_at = now()
            where token_hash = #{hash} and used_at is null and withdrawn_at is null and expires_at > now()""")
    int use(byte[] hash);
}
