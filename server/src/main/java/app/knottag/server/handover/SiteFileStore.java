package app.knottag.server.handover;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.SelectProvider;
import org.apache.ibatis.annotations.Update;

/** Whole sites out of the database and into an empty one, table by table. */
@Mapper
interface SiteFileStore {

    /** Moments are written in UTC for the rest of the transaction, whatever zone the server stands in. */
    @Update("set local time zone 'UTC'")
    void utc();

    @SelectProvider(type = Provider.class, method = "read")
    String rows(@Param("table") SiteTable table, @Param("siteId") long siteId);

    /** Kinds that endpoints of the site are on, with their files. */
    @Select("""
            select coalesce(string_agg(jsonb_build_object('id', k.id, 'version', k.version, 'shipped', k.shipped, 'yaml', k.yaml)::text,
            E',\\n' order by k.id, k.version), '') from kind_file k
            where (k.id, k.version) in (select kind, kind_version from endpoint where site_id = #{siteId})""")
    String kinds(long siteId);

    @Select("select id from site order by id")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<Long> ids();

    /** The outlet that feeds the site comes after the ports that it names. */
    @Insert("""
            insert into site overriding system value
            select r.* from jsonb_array_elements(#{rows}::jsonb) e, jsonb_populate_record(null::site, e - 'feed_port_id') r""")
    void addSite(String rows);

    @Update("""
            update site s set feed_port_id = (e ->> 'feed_port_id')::bigint from jsonb_array_elements(#{rows}::jsonb) e
            where s.id = (e ->> 'id')::bigint""")
    void feed(String rows);

    // The name of the table is one of SiteTable.
    @Insert("""
            insert into ${table} overriding system value
            select * from jsonb_populate_recordset(null::${table}, #{rows}::jsonb)""")
    int add(@Param("table") String table, @Param("rows") String rows);

    @Insert("""
            insert into kind_file (id, version, yaml, shipped, by)
            select k.id, k.version, k.yaml, k.shipped, #{by} from jsonb_populate_recordset(null::kind_file, #{rows}::jsonb) k
            on conflict do nothing""")
    void addKinds(@Param("rows") String rows, @Param("by") String by);

    /** What is added later gets numbers that nothing has yet. */
    @Select("select past_all_ids()")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    Object pastAllIds();

    final class Provider {

        private Provider() {}

        public static String read(@Param("table") SiteTable table, @Param("siteId") long siteId) {
            return table.read();
        }
    }
}
