package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.hardware.Mac;
import app.knottag.core.register.Registry.Type;
import app.knottag.core.register.RegistryForm;
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

/** Registries, what they hold, and what was handed over, as they stand in the database. */
@Mapper
public interface RegistrationStore {

    /** A registry; the kinds it is for are parted by blanks. */
    record RegistryRow(
            long id, long siteId, String name, Type type, Long segmentId, Medium medium, String kinds, Json rules) {}

    /** A registration; those who share it are parted by line ends. */
    record RegistrationRow(
            long id,
            long registryId,
            long siteId,
            long endpointId,
            String name,
            Mac mac,
            Ipv4Address address,
            String serial,
            String model,
            String owner,
            String sharedWith,
            String issued,
            String issuedUsed,
            Instant askedAt,
            Instant enteredAt,
            Instant restartedAt,
            Instant endsAt,
            Instant endedAt,
            String endedWhy,
            int version) {}

    record HandOverRow(long id, long registryId, Instant at, String by, RegistryForm form, Json entries) {}

    String REGISTRY =
            "select id, site_id, name, type, segment_id, medium, array_to_string(kinds, ' ') as kinds, rules from registry ";
    String REGISTRATION = """
            select id, registry_id, site_id, endpoint_id, name, mac, address, serial, model, owner, array_to_string(shared_with,
                E'\\n') as shared_with, issued,
                issued_used, asked_at, entered_at, restarted_at, ends_at, ended_at, ended_why, version from registration\s""";

    @Select(REGISTRY + "where site_id = #{siteId} and retired_at is null order by type, name")
    List<RegistryRow> registries(long siteId);

    @Select("<script>" + REGISTRY + """
            where retired_at is null and id in
            <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach> order by type, name</script>""")
    List<RegistryRow> someRegistries(@Param("ids") Collection<Long> ids);

    @Select(REGISTRY + "where id = #{id} and retired_at is null")
    RegistryRow registry(long id);

    @Select("""
            insert into registry (site_id, name, type, segment_id, medium, kinds, rules)
            values (#{siteId}, #{name}, #{type}, #{segmentId}, #{medium}, string_to_array(#{kinds}, ' '), #{rules}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addRegistry(RegistryRow row);

    @Update("""
            update registry set name = #{name}, type = #{type}, segment_id = #{segmentId}, medium = #{medium}, kinds =
                string_to_array(#{kinds}, ' '),
                rules = #{rules} where id = #{id}""")
    void changeRegistry(RegistryRow row);

    @Update("update registry set retired_at = #{at} where id = #{id}")
    void retireRegistry(@Param("id") long id, @Param("at") Instant at);

    @Select(REGISTRATION
            + "where site_id = #{siteId} and (ended_at is null or ended_at > now() - interval '60 days') order by id")
    List<RegistrationRow> ofSite(long siteId);

    @Select("<script>" + REGISTRATION + """
            where id in <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach> order by id</script>""")
    List<RegistrationRow> some(@Param("ids") Collection<Long> ids);

    @Select(REGISTRATION + "where endpoint_id = #{endpointId} and ended_at is null order by id")
    List<RegistrationRow> ofEndpoint(long endpointId);

    @Select(REGISTRATION + "where id = #{id}")
    RegistrationRow find(long id);

    @Select("""
            insert into registration (registry_id, site_id, endpoint_id, name, mac, address, serial, model, owner, shared_with,
                issued, issued_used, asked_at,
                entered_at, restarted_at, ends_at)
            values (#{registryId}, #{siteId}, #{endpointId}, #{name}, #{mac}, #{address}, #{serial}, #{model}, #{owner},
                string_to_array(#{sharedWith}, E'\\n'),
                #{issued}, #{issuedUsed}, #{askedAt}, #{enteredAt}, #{restartedAt}, #{endsAt}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(RegistrationRow row);

    @Update("""
            update registration set endpoint_id = #{r.endpointId}, name = #{r.name}, mac = #{r.mac}, address = #{r.address}, serial
                = #{r.serial},
                model = #{r.model}, owner = #{r.owner}, shared_with = string_to_array(#{r.sharedWith}, E'\\n'), issued = #{r.issued},
                issued_used = #{r.issuedUsed}, asked_at = #{r.askedAt}, entered_at = #{r.enteredAt}, restarted_at = #{r.restartedAt},
                ends_at = #{r.endsAt}, ended_at = #{r.endedAt}, ended_why = #{r.endedWhy}, version = version + 1
            where id = #{r.id} and version = #{r.version}""")
    int change(@Param("r") RegistrationRow row);

    @Update("""
            update registration set restarted_at = #{at}, version = version + 1
            where endpoint_id = #{endpointId} and entered_at <= #{at} and ended_at is null""")
    int restarted(@Param("endpointId") long endpointId, @Param("at") Instant at);

    /** Endpoints whose entry has run out and which do not wait for a new one yet. */
    @Select("""
            select distinct r.endpoint_id from registration r join endpoint e on e.id = r.endpoint_id
            where r.ended_at is null and r.ends_at <= #{now} and e.retired_at is null and not (e.station = 'REGISTER' and e.status =
                'FAILED') limit 500""")
    List<Long> ranOut(Instant now);

    @Select("""
            select id, registry_id, at, by, form, entries from hand_over where registry_id = #{registryId} order by id desc limit 1""")
    HandOverRow lastHandOver(long registryId);

    @Insert("""
            insert into hand_over (registry_id, at, by, form, entries) values (#{registryId}, #{at}, #{by}, #{form}, #{entries})""")
    void handOver(HandOverRow row);

    @Select("select name from owner_left where site_id = #{siteId} order by name")
    List<String> ownersLeft(long siteId);

    @Insert("""
            insert into owner_left (site_id, name, left_at, by) values (#{siteId}, #{name}, #{at}, #{by}) on conflict (site_id,
                lower(name)) do nothing""")
    int ownerLeft(
            @Param("siteId") long siteId, @Param("name") String name, @Param("at") Instant at, @Param("by") String by);

    @Delete("delete from owner_left where site_id = #{siteId} and lower(name) = lower(#{name})")
    int ownerBack(@Param("siteId") long siteId, @Param("name") String name);
}
