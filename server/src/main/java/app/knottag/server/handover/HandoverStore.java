package app.knottag.server.handover;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.handover.PackType;
import app.knottag.core.reach.Grade;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** What is kept of a hand-over: printed tags, what may stay, sheets of labels, signed packs. */
@Mapper
interface HandoverStore {

    record PrintedRow(
            long endpointId,
            Json facts,
            Instant at,
            String by,
            @Nullable Instant hungAt) {}

    @Select("""
            select distinct on (p.endpoint_id) p.endpoint_id, p.facts, p.at, p.by, p.hung_at
            from printed_tag p join endpoint e on e.id = p.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null order by p.endpoint_id, p.id desc""")
    List<PrintedRow> printed(long siteId);

    @Insert("""
            insert into printed_tag (endpoint_id, facts, at, by) values (#{endpointId}, #{facts}, #{at}, #{by})""")
    void addPrinted(
            @Param("endpointId") long endpointId,
            @Param("facts") Json facts,
            @Param("at") Instant at,
            @Param("by") String by);

    /** Says that the latest tags of these hang; returns for how many. */
    @Update("""
            <script>update printed_tag p set hung_at = #{at}, hung_by = #{by} where p.hung_at is null and p.id in (
              select max(t.id) from printed_tag t join endpoint e on e.id = t.endpoint_id where e.site_id = #{siteId} and t.endpoint_id in
              <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach> group by t.endpoint_id)</script>""")
    int hung(
            @Param("siteId") long siteId,
            @Param("ids") Collection<Long> ids,
            @Param("at") Instant at,
            @Param("by") String by);

    record PassRow(long endpointId, String key, String reason, Instant at, String by) {}

    @Select("""
            select p.endpoint_id, p.key, p.reason, p.at, p.by from let_pass p join endpoint e on e.id = p.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null order by p.endpoint_id, p.key""")
    List<PassRow> passed(long siteId);

    @Insert("""
            insert into let_pass (endpoint_id, key, reason, at, by) values (#{endpointId}, #{key}, #{reason}, #{at}, #{by})
            on conflict (endpoint_id, key) do update set reason = excluded.reason, at = excluded.at, by = excluded.by""")
    void letPass(PassRow row);

    @Delete("delete from let_pass where endpoint_id = #{endpointId} and key = #{key}")
    int takeBack(@Param("endpointId") long endpointId, @Param("key") String key);

    record SignedRow(long endpointId, Grade grade, Instant at, String by) {}

    /** The sign-offs that hold. */
    @Select("""
            select distinct on (s.endpoint_id) s.endpoint_id, s.grade, s.at, s.by
            from sign_off s join endpoint e on e.id = s.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null and e.confirmed_at is not null order by s.endpoint_id, s.id desc""")
    List<SignedRow> signedOff(long siteId);

    /** @param latest what the latest run of checks belonged to; as long as a sign-off holds nothing was changed since */
    record OfficeRow(
            long endpointId,
            boolean reached,
            Instant at,
            Json basis,
            @Nullable Json latest) {}

    /** What the office found last of each. */
    @Select("""
            select distinct on (o.endpoint_id) o.endpoint_id, o.outcome = 'REACHED' as reached, o.at, o.basis, r.basis as latest
            from observation o join endpoint e on e.id = o.endpoint_id left join lateral (
              select c.basis from check_run c where c.endpoint_id = o.endpoint_id order by c.id desc limit 1) r on true
            where e.site_id = #{siteId} and e.retired_at is null and o.check_name = 'OFFICE' order by o.endpoint_id, o.id desc""")
    List<OfficeRow> office(long siteId);

    record TaggedEndpoint(
            long id,
            long siteId,
            String site,
            String name,
            String tagCode,
            @Nullable Ipv4Address address) {}

    @Select("""
            <script>select e.id, e.site_id, s.name as site, e.name, e.tag_code, e.address from endpoint e join site s on s.id = e.site_id
            where e.retired_at is null and replace(e.tag_code, '-', '') in
            <foreach collection="bare" item="code" open="(" separator="," close=")">#{code}</foreach> order by e.id limit 8</script>""")
    List<TaggedEndpoint> coded(@Param("bare") Collection<String> bare);

    record GridRow(long id, Json grid) {}

    @Select("select id, grid from label_grid order by lower(name)")
    List<GridRow> grids();

    @Select("""
            insert into label_grid (name, grid, by) values (#{name}, #{grid}, #{by})
            on conflict (lower(name)) do update set grid = excluded.grid, by = excluded.by, at = now() returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepGrid(@Param("name") String name, @Param("grid") Json grid, @Param("by") String by);

    @Delete("delete from label_grid where id = #{id}")
    int dropGrid(long id);

    record SealRow(String number, String caseNumber, long endpointId, String name, Instant at, String by) {}

    /** Seals that were put on at a site, the latest first. */
    @Select("""
            select s.number, s.case_number, s.endpoint_id, e.name, s.at, s.by from seal s join endpoint e on e.id = s.endpoint_id
            where e.site_id = #{siteId} order by s.at desc, s.number limit 1000""")
    List<SealRow> seals(long siteId);

    record HeadRow(long id, String hash) {}

    /** Where the chain of the log ends. */
    @Select("select id, encode(hash, 'hex') as hash from log_head")
    HeadRow head();

    @Select("select help from site where id = #{siteId}")
    String help(long siteId);

    @Update("update site set help = #{help} where id = #{siteId}")
    void keepHelp(@Param("siteId") long siteId, @Param("help") String help);

    /** A pack as it was signed, without its document. */
    record SignedPack(
            long id,
            long siteId,
            PackType type,
            String signer,
            Instant at,
            String by,
            long logId,
            int endpoints,
            String sha256) {}

    String SIGNED =
            "select id, site_id, type, signer, at, by, log_id, endpoints, encode(sha256, 'hex') as sha256 from signed_pack ";

    @Select(SIGNED + "where site_id = #{siteId} order by id desc limit 100")
    List<SignedPack> packs(long siteId);

    @Select(SIGNED + "where id = #{id}")
    @Nullable
    SignedPack pack(long id);

    /** How much was changed at a site since an entry of the log; what other sites do does not count. */
    @Select("select count(*) from log_entry where site_id = #{siteId} and id > #{logId}")
    int changesSince(@Param("siteId") long siteId, @Param("logId") long logId);

    record DocumentRow(byte[] document) {}

    @Select("select document from signed_pack where id = #{id}")
    DocumentRow document(long id);

    @Select("""
            insert into signed_pack (site_id, type, signer, at, by, log_id, endpoints, document, sha256)
            values (#{p.siteId}, #{p.type}, #{p.signer}, #{p.at}, #{p.by}, #{p.logId}, #{p.endpoints}, #{document}, sha256(#{document}))
            returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addPack(@Param("p") SignedPack pack, @Param("document") byte[] document);

    @Update("""
            <script>update endpoint set handed_over_at = #{at} where confirmed_at is not null and retired_at is null and id in
            <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach></script>""")
    void handedOver(@Param("ids") Collection<Long> ids, @Param("at") Instant at);
}
