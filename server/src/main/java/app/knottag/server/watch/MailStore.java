package app.knottag.server.watch;

import app.knottag.server.probe.MailRelay.Way;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Where the report of the morning goes, and how the last try went. */
@Mapper
interface MailStore {

    /** @param recipients one a line */
    record MailRow(String host, int port, boolean secured, String sender, String recipients, String trouble) {

        Way way() {
            return new Way(host, port, secured, sender, List.of(recipients.split("\n")));
        }
    }

    @Select("""
            select host, port, secured, sender, array_to_string(recipients, E'\\n') as recipients, trouble
            from morning_mail""")
    Optional<MailRow> find();

    /** Whether a try failed so lately that it is too early for another. */
    @Select("select exists (select from morning_mail where trouble <> '' and tried_at > #{since})")
    boolean failedSince(Instant since);

    @Insert("""
            insert into morning_mail (host, port, secured, sender, recipients, by)
            values (#{w.host}, #{w.port}, #{w.secured}, #{w.sender}, string_to_array(#{recipients}, E'\\n'), #{by})
            on conflict (one) do update set host = excluded.host, port = excluded.port, secured = excluded.secured,
            sender = excluded.sender, recipients = excluded.recipients, by = excluded.by, tried_at = null, trouble = ''""")
    void put(@Param("w") Way way, @Param("recipients") String recipients, @Param("by") String by);

    @Delete("delete from morning_mail")
    int end();

    @Update("update morning_mail set tried_at = #{at}, trouble = #{trouble}")
    void tried(@Param("at") Instant at, @Param("trouble") String trouble);
}
