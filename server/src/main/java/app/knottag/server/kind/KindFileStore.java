package app.knottag.server.kind;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Files of kinds as they stand in the database. */
@Mapper
interface KindFileStore {

    record FileRow(String id, int version, String yaml, boolean shipped, Instant at, String by) {}

    @Select("select id, version, yaml, shipped, at, by from kind_file order by id, version")
    List<FileRow> all();

    @Select("select id, version, yaml, shipped, at, by from kind_file where id = #{id} order by version desc")
    List<FileRow> versions(String id);

    /** Adds a version; returns 0 when it is there already. */
    @Insert("""
            insert into kind_file (id, version, yaml, shipped, by) values (#{id}, #{version}, #{yaml}, #{shipped}, #{by})
            on conflict do nothing""")
    int add(
            @Param("id") String id,
            @Param("version") int version,
            @Param("yaml") String yaml,
            @Param("shipped") boolean shipped,
            @Param("by") String by);

    /** Moves what nobody has begun to the latest version; what has begun stays with its own. */
    @Update("""
            update endpoint e set kind_version = #{version} where kind = #{id} and retired_at is null and kind_version <> #{version}
            and not exists (select 1 from step s where s.endpoint_id = e.id and s.status <> 'PENDING')""")
    void follow(@Param("id") String id, @Param("version") int version);
}
