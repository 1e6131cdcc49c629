package app.knottag.server.practice;

import app.knottag.core.practice.Level;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** How people did at cases. */
@Mapper
interface PracticeStore {

    /** One case that somebody played to its end. */
    record ResultRow(
            String caseId,
            String kind,
            Level level,
            Instant at,
            boolean solved,
            double minutes,
            double par,
            double score) {}

    @Insert("""
            insert into practice_result (person, case_id, kind, level, at, solved, minutes, par, score)
            values (#{person}, #{r.caseId}, #{r.kind}, #{r.level}, #{r.at}, #{r.solved}, #{r.minutes}, #{r.par}, #{r.score})""")
    void add(@Param("person") String person, @Param("r") ResultRow result);

    /** The latest first. */
    @Select("""
            select case_id, kind, level, at, solved, minutes, par, score from practice_result
            where person = #{person} order by at desc, id desc limit 500""")
    List<ResultRow> of(String person);
}
