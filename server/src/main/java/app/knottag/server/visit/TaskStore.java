package app.knottag.server.visit;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Whatever is to be done on a visit beside setting up, as it stands in the database. */
@Mapper
interface TaskStore {

    /**
     * @param skill what somebody must be allowed to do, or empty
     * @param stage those of a lower one come before it, 1 or more; 0 when it waits for nothing
     */
    record TaskRow(long id, String title, String place, int minutes, String skill, int stage, boolean done) {

        /** The number by which plans and hands know it, apart from all endpoints. */
        long unit() {
            return -id;
        }
    }

    @Select("""
            select id, title, place, minutes, skill, stage, done_at is not null as done from visit_task where visit_id = #{visitId}
            order by id""")
    List<TaskRow> of(long visitId);

    @Insert("""
            insert into visit_task (visit_id, title, place, minutes, skill, stage)
            values (#{visitId}, #{t.title}, #{t.place}, #{t.minutes}, #{t.skill}, #{t.stage})""")
    void add(@Param("visitId") long visitId, @Param("t") TaskRow task);

    @Update("""
            update visit_task set title = #{t.title}, place = #{t.place}, minutes = #{t.minutes}, skill = #{t.skill}, stage = #{t.stage}
            where visit_id = #{visitId} and id = #{t.id} and done_at is null""")
    void keep(@Param("visitId") long visitId, @Param("t") TaskRow task);

    @Delete("delete from visit_task where visit_id = #{visitId} and id = #{id} and done_at is null")
    void drop(@Param("visitId") long visitId, @Param("id") long id);

    @Update("update visit_task set done_at = #{at} where visit_id = #{visitId} and id = #{id} and done_at is null")
    int done(@Param("visitId") long visitId, @Param("id") long id, @Param("at") Instant at);
}
