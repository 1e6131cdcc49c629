package app.knottag.server.record;

import app.knottag.core.runbook.Stage;
import app.knottag.server.db.Json;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Takes the layout of a site over into a new one, part by part; what belongs together is found by its name. */
@Mapper
interface SiteCopyStore {

    String SEGMENT = "left join segment os on os.id = o.segment_id "
            + "left join segment ns on ns.site_id = #{to} and lower(ns.name) = lower(os.name) ";
    String PLACE = "left join place op on op.id = o.place_id "
            + "left join place np on np.site_id = #{to} and lower(np.name) = lower(op.name) ";
    String GEAR = "left join gear og on og.id = o.gear_id "
            + "left join gear ng on ng.site_id = #{to} and lower(ng.name) = lower(og.name) ";
    String PORT = "left join port ox on ox.id = o.port_id left join gear oxg on oxg.id = ox.gear_id "
            + "left join gear nxg on nxg.site_id = #{to} and lower(nxg.name) = lower(oxg.name) "
            + "left join port nx on nx.gear_id = nxg.id and nx.number = ox.number ";

    @Insert("""
            insert into segment (site_id, name, prefix, gateway, resolvers, vlan, lease_minutes, method, can_reserve, notes, prefix6,
              gateway6, fixed6)
            select #{to}, name, prefix, gateway, resolvers, vlan, lease_minutes, method, can_reserve, notes, prefix6, gateway6, fixed6
            from segment where site_id = #{from} and retired_at is null""")
    void segments(@Param("from") long from, @Param("to") long to);

    @Insert(
            "insert into pool (segment_id, from_address, to_address) select ns.id, o.from_address, o.to_address from pool o "
                    + SEGMENT + "where os.site_id = #{from} and os.retired_at is null")
    void pools(@Param("from") long from, @Param("to") long to);

    @Insert("insert into place (site_id, name, walk) select #{to}, name, walk from place where site_id = #{from}")
    void places(@Param("from") long from, @Param("to") long to);

    @Insert("insert into gear (site_id, name, type, place_id) select #{to}, o.name, o.type, np.id from gear o " + PLACE
            + "where o.site_id = #{from}")
    void gear(@Param("from") long from, @Param("to") long to);

    @Insert("insert into port (site_id, gear_id, number, role, segment_id, poe) "
            + "select #{to}, ng.id, o.number, o.role, ns.id, o.poe from port o " + GEAR + SEGMENT
            + "where o.site_id = #{from}")
    void ports(@Param("from") long from, @Param("to") long to);

    @Insert("insert into outlet (site_id, name, place_id, state, port_id) "
            + "select #{to}, o.name, np.id, o.state, nx.id from outlet o " + PLACE + PORT + "where o.site_id = #{from}")
    void outlets(@Param("from") long from, @Param("to") long to);

    @Insert("insert into partner (site_id, name, address, test_port) "
            + "select #{to}, name, address, test_port from partner where site_id = #{from}")
    void partners(@Param("from") long from, @Param("to") long to);

    @Insert(
            "insert into series (site_id, segment_id, name, host_base, port_base, counts, last_number, per_year, gear_id) "
                    + "select #{to}, ns.id, o.name, o.host_base, o.port_base, o.counts, o.last_number, o.per_year, ng.id from series o "
                    + SEGMENT + GEAR + "where o.site_id = #{from}")
    void series(@Param("from") long from, @Param("to") long to);

    @Update("""
            update series n set follows_id = nf.id from series o join series f on f.id = o.follows_id
              join series nf on nf.site_id = #{to} and nf.name = f.name
            where o.site_id = #{from} and n.site_id = #{to} and n.name = o.name""")
    void follows(@Param("from") long from, @Param("to") long to);

    @Insert("""
            insert into listed_service (site_id, name, protocol, host, port, kinds)
            select #{to}, name, protocol, host, port, kinds from listed_service where site_id = #{from}""")
    void services(@Param("from") long from, @Param("to") long to);

    @Insert("""
            insert into busy_time (site_id, from_time, until_time, what)
            select #{to}, from_time, until_time, what from busy_time where site_id = #{from}""")
    void busyTimes(@Param("from") long from, @Param("to") long to);

    @Insert("insert into registry (site_id, name, type, segment_id, medium, kinds, rules) "
            + "select #{to}, o.name, o.type, ns.id, o.medium, o.kinds, o.rules from registry o " + SEGMENT
            + "where o.site_id = #{from} and o.retired_at is null")
    void registries(@Param("from") long from, @Param("to") long to);

    @Update("""
            update site n set name_rule = o.name_rule, feed = o.feed, feed_note = o.feed_note, feed_port_id = (
              select np.id from port op join gear og on og.id = op.gear_id join gear ng on ng.site_id = #{to} and ng.name = og.name
                join port np on np.gear_id = ng.id and np.number = op.number where op.id = o.feed_port_id)
            from site o where o.id = #{from} and n.id = #{to}""")
    void rest(@Param("from") long from, @Param("to") long to);

    record CopiedRow(long id, String kind, String tagCode) {}

    @Select("select id, kind, tag_code from endpoint where site_id = #{siteId} and retired_at is null")
    List<CopiedRow> endpoints(long siteId);

    /** Endpoints as they are planned, without what belongs to a unit; {@code codes} has their new codes and kinds by the old id. */
    @Insert(
            "insert into endpoint (site_id, segment_id, kind, kind_version, name, host_name, series_id, number, address, method, "
                    + "service_port, partner_id, partner_port, place_id, outlet_id, port_id, tag_code, station, status) "
                    + "select #{to}, ns.id, o.kind, c.version, o.name, case when o.host_name like lower(old.code) || '-%' "
                    + "then left(lower(new.code) || substr(o.host_name, length(old.code) + 1), 15) else '' "
                    + "end, nse.id, o.number, o.address, "
                    + "o.method, o.service_port, npa.id, o.partner_port, np.id, no.id, nx.id, c.code, "
                    + "case when o.address is null then #{bare.station} else #{addressed.station} end, 'PENDING' from endpoint o "
                    + "join jsonb_to_recordset(#{codes}) c (id bigint, code text, version int) on c.id = o.id "
                    + "join site old on old.id = #{from} join site new on new.id = #{to} " + SEGMENT + PLACE + PORT
                    + "left join outlet oo on oo.id = o.outlet_id left join outlet no on no.site_id = #{to} "
                    + "and lower(no.name) = lower(oo.name) "
                    + "left join series ose on ose.id = o.series_id left join series nse on nse.site_id = #{to} and nse.name = ose.name "
                    + "left join partner opa on opa.id = o.partner_id left join partner npa on npa.site_id = #{to} and npa.name = opa.name "
                    + "where o.site_id = #{from} and o.retired_at is null")
    int planned(
            @Param("from") long from,
            @Param("to") long to,
            @Param("codes") Json codes,
            @Param("bare") Stage bare,
            @Param("addressed") Stage addressed);
}
