package app.knottag.server.session;

import java.time.Instant;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** People who may sign in, and invitations to become one. */
@Mapper
interface People {

    record Row(long id, String name, Role role, String passwordHash) {}

    @Select("select id, name, role, password_hash from person where lower(name) = lower(#{name})")
    Row find(String name);

    @Select("select count(*) from person")
    int count();

    @Insert("insert into person (name, role, password_hash) values (#{name}, #{role}, #{hash})")
    void add(@Param("name") String name, @Param("role") Role role, @Param("hash") String hash);

    @Insert("insert into invitation (token_hash, role, expires_at) values (#{hash}, #{role}, #{expires})")
    void invite(@Param("hash") byte[] hash, @Param("role") Role role, @Param("expires") Instant expires);

    @Select("select role from invitation where token_hash = #{hash} and used_at is null and expires_at > now()")
    Role invited(byte[] hash);

    @Update(
            "update invitation set used_at = now() where token_hash = #{hash} and used_at is null and expires_at > now()")
    int use(byte[] hash);
}
