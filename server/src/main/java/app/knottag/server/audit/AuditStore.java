package app.knottag.server.audit;

import app.knottag.core.hardware.Mac;
import app.knottag.server.record.EvidenceStore.KnownRow;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;

/** What was said of those who are on no record. */
@Mapper
interface AuditStore {

    @Insert("""
            insert into known_mac (site_id, mac, address, what, by, at)
            values (#{siteId}, #{k.mac}, #{k.address}, #{k.what}, #{k.by}, #{k.at})
            on conflict (site_id, mac)
            do update set address = excluded.address, what = excluded.what, by = excluded.by, at = excluded.at""")
    void know(@Param("siteId") long siteId, @Param("k") KnownRow known);

    @Delete("delete from known_mac where site_id = #{siteId} and mac = #{mac}")
    int forget(@Param("siteId") long siteId, @Param("mac") Mac mac);
}
