package app.knottag.server.practice;

import app.knottag.core.practice.Level;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** How people did at cases. */
@Mapper
interface PracticeStore {

    /**
     * One case that somebody played to its end.
     *
     * @param causes what was wrong, with commas between; empty of what was played before that was kept
     */
    record ResultRow(
            String caseId,
            String kind,
            Level level,
            Instant at,
            String causes,
            boolean solved,
            double minutes,
            double par,
            double score) {}

    /** Somebody who lets leads see how far they are. */
    record ShownRow(long id, String name) {}

    @Insert("""
            insert into practice_result (person, case_id, kind, level, at, causes, solved, minutes, par, score)
            values (#{person}, #{r.caseId}, #{r.kind}, #{r.level}, #{r.at}, string_to_array(#{r.causes}, ','), #{r.solved},
              #{r.minutes}, #{r.par}, #{r.score})""")
    void add(@Param("person") String person, @Param("r") ResultRow result);

    /** The latest first. */
    @Select("""
            select case_id, kind, level, at, array_to_string(causes, ',') as causes, solved, minutes, par, score
            from practice_result where person = #{person} order by at desc, id desc limit 500""")
    List<ResultRow> of(String person);

    @Select("select practice_shown from person where name = #{person}")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    boolean shown(String person);

    @Update("update person set practice_shown = #{shown} where name = #{person}")
    void show(@Param("person") String person, @Param("shown") boolean shown);

    /** Those who agreed, by name and nothing else. */
    @Select("select id, name from person where practice_shown and closed_at is null order by name, id limit 200")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<ShownRow> agreed();
}
