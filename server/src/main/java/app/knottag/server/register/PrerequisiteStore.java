package app.knottag.server.register;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** What must be there before a visit, and the visit, as they stand in the database. */
@Mapper
interface PrerequisiteStore {

    record PrerequisiteRow(long id, long siteId, String name, String who, int days, String after, Instant doneAt) {}

    record VisitRow(LocalDate visitOn, int visitSlack) {}

    @Select("""
            select id, site_id, name, who, days, after, done_at from prerequisite
            where site_id = #{siteId} and (done_at is null or done_at > now() - interval '30 days') order by id""")
    List<PrerequisiteRow> of(long siteId);

    @Select("select visit_on, visit_slack from site where id = #{siteId}")
    VisitRow visit(long siteId);

    @Update("update site set visit_on = #{on}, visit_slack = #{slack} where id = #{siteId}")
    void setVisit(@Param("siteId") long siteId, @Param("on") LocalDate on, @Param("slack") int slack);

    @Select("""
            insert into prerequisite (site_id, name, who, days, after) values (#{siteId}, #{name}, #{who}, #{days}, #{after})
                returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(PrerequisiteRow row);

    /** The latest of that name, unless another that is still to come has the new one. */
    @Update("""
            update prerequisite p set name = #{name}
            where p.id = (select max(id) from prerequisite where site_id = #{siteId} and name = #{was})
              and not exists (select from prerequisite o where o.site_id = #{siteId} and lower(o.name) = lower(#{name})
                and o.done_at is null and o.id <> p.id)""")
    int rename(@Param("siteId") long siteId, @Param("was") String was, @Param("name") String name);

    @Delete("delete from prerequisite where site_id = #{siteId} and name = #{name} and done_at is null")
    int withdraw(@Param("siteId") long siteId, @Param("name") String name);

    /** What came after one comes after another, or after nothing when that is empty. */
    @Update("update prerequisite set after = #{name} where site_id = #{siteId} and after = #{was}")
    void follow(@Param("siteId") long siteId, @Param("was") String was, @Param("name") String name);

    @Update("""
            update prerequisite set done_at = #{at} where site_id = #{siteId} and id = #{id} and (done_at is null) =
                (#{at}::timestamptz is not null)""")
    int done(@Param("siteId") long siteId, @Param("id") long id, @Param("at") Instant at);
}
