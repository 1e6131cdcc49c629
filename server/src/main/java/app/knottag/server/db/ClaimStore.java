package app.knottag.server.db;

import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What is told of work that goes on just now. */
@Mapper
interface ClaimStore {

    record ClaimRow(Json told, boolean stop) {}

    @Insert("""
            insert into claim (work, id, told, stop) values (#{work}, #{id}, 'null', false)
            on conflict (work, id) do update set told = 'null', stop = false""")
    void begin(@Param("work") Claims.Work work, @Param("id") long id);

    @Update("update claim set told = #{told} where work = #{work} and id = #{id}")
    void tell(@Param("work") Claims.Work work, @Param("id") long id, @Param("told") Json told);

    @Update("update claim set stop = true where work = #{work} and id = #{id}")
    void stop(@Param("work") Claims.Work work, @Param("id") long id);

    @Delete("delete from claim where work = #{work} and id = #{id}")
    void end(@Param("work") Claims.Work work, @Param("id") long id);

    /** What is told of it, when somebody holds it; a row whose server was killed says nothing. */
    @Select("""
            select told, stop from claim where work = #{work} and id = #{id} and exists (
                select 1 from pg_locks l where l.locktype = 'advisory' and l.objsubid = 2 and l.granted
                and l.database = (select oid from pg_database where datname = current_database())
                and l.classid = #{number}::oid and l.objid = (#{id} & 4294967295)::oid)""")
    Optional<ClaimRow> held(@Param("work") Claims.Work work, @Param("number") long number, @Param("id") long id);
}
