package app.knottag.server.record;

import java.util.List;
import java.util.Map;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** At which site something is that an address names. */
@Mapper
public interface SiteOfStore {

    /** What belongs to a site, as addresses call it, and in words. */
    Map<String, String> OF_A_SITE = Map.ofEntries(
            Map.entry("endpoints", "endpoint"),
            Map.entry("gear", "gear"),
            Map.entry("interfaces", "interface"),
            Map.entry("nights", "night"),
            Map.entry("packs", "pack"),
            Map.entry("registrations", "registration"),
            Map.entry("registries", "registry"),
            Map.entry("renumberings", "renumbering"),
            Map.entry("schemes", "segment"),
            Map.entry("segments", "segment"),
            Map.entry("sites", "site"),
            Map.entry("swaps", "swap"),
            Map.entry("visits", "visit"));

    /** Returns the sites that it is of, more than one for a visit that goes to several; none when there is no such thing. */
    @Select("""
            select distinct unnest(case #{what}
              when 'endpoints' then array(select site_id from endpoint where id = #{id})
              when 'gear' then array(select site_id from gear where id = #{id})
              when 'interfaces' then array(select site_id from interface where id = #{id})
              when 'nights' then array(select site_id from night where id = #{id})
              when 'packs' then array(select site_id from signed_pack where id = #{id})
              when 'registrations' then array(select site_id from registration where id = #{id})
              when 'registries' then array(select site_id from registry where id = #{id})
              when 'renumberings' then array(select site_id from renumbering where id = #{id})
              when 'schemes' then array(select site_id from segment where id = #{id})
              when 'segments' then array(select site_id from segment where id = #{id})
              when 'sites' then array(select id from site where id = #{id})
              when 'swaps' then array(select site_id from swap where id = #{id})
              when 'visits' then array(select site_id from visit where id = #{id}) || array(
                select e.site_id from visit_unit u join endpoint e on e.id = u.endpoint_id where u.visit_id = #{id})
            end)""")
    List<Long> sites(@Param("what") String what, @Param("id") long id);
}
