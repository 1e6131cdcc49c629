package app.knottag.server.plan;

import app.knottag.server.web.Problem;
import java.util.Map;
import java.util.function.Supplier;
import org.postgresql.util.PSQLException;
import org.springframework.dao.DataIntegrityViolationException;

/** Says in words which rule of the database a change of the site sheet ran against. */
final class SheetConflicts {

    private static final Map<String, String[]> WORDS = Map.ofEntries(
            words("site_name_once", "name", "name-taken", "Another site is called so. Add the town, for example."),
            words("site_code_once", "code", "code-taken", "Another site has that code. Choose another."),
            words("segment_overlap", "prefix", "segment-overlap", "This prefix overlaps another segment of the site."),
            words(
                    "segment_overlap6",
                    "prefix6",
                    "segment-overlap",
                    "This IPv6 prefix overlaps another segment of the site."),
            words("segment_name_once", "name", "name-taken", "Another segment of this site is called so."),
            words("segment_vlan_once", "vlan", "vlan-taken", "Another segment of this site has that VLAN id."),
            words(
                    "pool_in_segment",
                    "pools/0/from",
                    "pool-outside",
                    "A pool must lie inside the prefix of its segment."),
            words("pool_over_gateway", "pools/0/from", "pool-over-gateway", "A pool covers the gateway."),
            words("pool_overlap", "pools/0/from", "pool-overlap", "Two pools overlap."),
            words("series_name_once", "name", "name-taken", "Another series of this site is called so."),
            words("place_name_once", "name", "name-taken", "Another place of this site is called so."),
            words("gear_name_once", "name", "name-taken", "Another piece of gear of this site is called so."),
            words("listed_service_name_once", "name", "name-taken", "Another service of this site is called so."),
            words("outlet_name_once", "name", "name-taken", "Another outlet of this site is called so."),
            words("outlet_port_once", "port", "port-taken", "Another outlet is patched to that port."),
            words("port_number_once", "ports", "port-twice", "Two ports have the same number."));

    private SheetConflicts() {}

    private static Map.Entry<String, String[]> words(String constraint, String field, String code, String message) {
        return Map.entry(constraint, new String[] {field, code, message});
    }

    /**
     * Does the work and explains what the database refuses.
     *
     * @param inUse what to say when others still point at what was to be removed
     */
    public static <T> T guard(String inUse, Supplier<T> work) {
        try {
            return work.get();
        } catch (DataIntegrityViolationException e) {
            if (!(e.getRootCause() instanceof PSQLException sql) || sql.getServerErrorMessage() == null) throw e;
            String constraint = String.valueOf(sql.getServerErrorMessage().getConstraint());
            String said = String.valueOf(sql.getServerErrorMessage().getMessage());
            if (constraint.equals("segment_leaves_outside"))
                throw Problem.conflict(
                        "prefix",
                        "leaves-outside",
                        "That prefix would leave " + said + " outside. Renumber the segment instead, or move it first.",
                        Map.of());
            if (constraint.equals("segment_gateway_taken"))
                throw Problem.conflict(
                        "gateway", "gateway-taken", said + " has that address. Move it first.", Map.of());
            var words = WORDS.get(constraint);
            if (words != null) throw Problem.conflict(words[0], words[1], words[2], Map.of());
            if ("23503".equals(sql.getSQLState())) throw Problem.conflict("", "in-use", inUse, Map.of());
            throw e;
        }
    }
}
