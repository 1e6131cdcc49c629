package app.knottag.server.db;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.postgresql.util.PSQLException;

/** What must hold even if the application were wrong. */
class DatabaseTest {

    private final Api lead = Running.as(Role.LEAD);

    private static void run(Connection database, String sql) throws SQLException {
        try (var statement = database.createStatement()) {
            statement.execute(sql);
        }
    }

    private static String one(Connection database, String sql) throws SQLException {
        try (var statement = database.createStatement();
                var result = statement.executeQuery(sql)) {
            result.next();
            return result.getString(1);
        }
    }

    @DisplayName("The database itself refuses what breaks a rule")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "endpoint_address_once       | update endpoint set address = '10.7.0.51' where id = :second",
                "endpoint_name_once          | update endpoint set name = 'TILL 1' where id = :second",
                "endpoint_number_once        | update endpoint set number = 1 where id = :second",
                "endpoint_serial_once        | update endpoint set serial = 'OC2-AAAA-0001' where id = :second",
                "endpoint_tag_code_once      | update endpoint set tag_code = (select tag_code from endpoint where id = "
                        + ":first) where id = :second",
                "endpoint_address_in_segment | update endpoint set address = '10.7.1.5' where id = :second",
                "endpoint_address_in_segment | update endpoint set address = '10.7.0.255' where id = :second",
                "endpoint_address_in_segment | update endpoint set address = '10.7.0.0' where id = :second",
                "endpoint_address_not_gateway | update endpoint set address = '10.7.0.1' where id = :second",
                "interface_mac_once          | update interface set mac = '00:00:5e:00:53:01' where endpoint_id = :second",
                "interface_mac_single        | update interface set mac = '01:00:5e:00:53:01' where endpoint_id = :second",
                "interface_mac_single        | update interface set mac = '00:00:00:00:00:00' where endpoint_id = :second",
                "segment_overlap             | insert into segment (site_id, name, prefix) values (:site, 'Twice', '10.7.0.0/16')",
                "segment_gateway_inside      | insert into segment (site_id, name, prefix, gateway) values (:site, "
                        + "'Odd', '10.9.0.0/24', '10.7.0.1')",
                "pool_overlap                | insert into pool (segment_id, from_address, to_address) values "
                        + "(:segment, '10.7.0.199', '10.7.0.210')",
                "pool_upwards                | insert into pool (segment_id, from_address, to_address) values "
                        + "(:segment, '10.7.0.220', '10.7.0.210')",
                "segment_name_once           | insert into segment (site_id, name, prefix) values (:site, 'SHOP', '10.9.0.0/24')",
                "segment_leaves_outside      | update segment set prefix = '10.7.0.0/27', gateway = '10.7.0.1' where id = :segment",
                "segment_gateway_taken       | update segment set gateway = '10.7.0.51' where id = :segment",
                "pool_in_segment             | insert into pool (segment_id, from_address, to_address) values "
                        + "(:segment, '10.7.1.1', '10.7.1.9')",
                "pool_over_gateway           | insert into pool (segment_id, from_address, to_address) values "
                        + "(:segment, '10.7.0.1', '10.7.0.9')",
                "endpoint_port_once          | update endpoint set port_id = (select port_id from endpoint where id = "
                        + ":first) where id = :second",
                "outlet_patched              | insert into outlet (site_id, name, state) values (:site, 'X', 'PATCHED')",
                "series_ground               | insert into series (site_id, name, host_base, port_base) values (:site, 'X', 1, 0)",
                "endpoint_host_name_form     | update endpoint set host_name = 'Not_Good' where id = :second",
                "interface_counts_once       | insert into interface (endpoint_id, site_id, medium, mac) values "
                        + "(:first, :site, 'WIRELESS', '00:00:5e:00:53:aa')",
                "interface_medium_once       | insert into interface (endpoint_id, site_id, mac, counts) values "
                        + "(:first, :site, '00:00:5e:00:53:aa', false)",
                "registration_mac_once       | with r as (insert into registry (site_id, name, type, rules) values "
                        + "(:site, 'R', 'PORTAL', '{}') returning id) insert into registration (registry_id, site_id, "
                        + "endpoint_id, name, mac) select id, :site, unnest(array[:first, :second]), unnest(array['a', "
                        + "'b']), '00:00:5e:00:53:aa'::macaddr from r",
                "registration_name_once      | with r as (insert into registry (site_id, name, type, rules) values "
                        + "(:site, 'R', 'PORTAL', '{}') returning id) insert into registration (registry_id, site_id, "
                        + "endpoint_id, name) select id, :site, unnest(array[:first, :second]), unnest(array['a', 'A']) "
                        + "from r",
                "registration_unit_once      | with r as (insert into registry (site_id, name, type, rules) values "
                        + "(:site, 'R', 'PORTAL', '{}') returning id) insert into registration (registry_id, site_id, "
                        + "endpoint_id, name) select id, :site, :first, unnest(array['a', 'b']) from r",
                "registration_ends_after     | with r as (insert into registry (site_id, name, type, rules) values "
                        + "(:site, 'R', 'PORTAL', '{}') returning id) insert into registration (registry_id, site_id, "
                        + "endpoint_id, name, entered_at, ends_at) select id, :site, :first, 'a', now(), now() from r",
                "endpoint_segment_id_site_id_fkey | update endpoint set site_id = :other where id = :second",
            })
    void constraints(String constraint, String sql) throws SQLException {
        long[] site = Running.site(lead);
        long first = Running.till(lead, site, 1), second = Running.till(lead, site, 2);
        lead.seen(first)
                .patch("/api/endpoints/" + first, "{'switchPort':'Shop switch 1'}")
                .expect(200);
        String filled = sql.replace(":first", "" + first)
                .replace(":second", "" + second)
                .replace(":site", "" + site[0])
                .replace(":other", "" + Running.site(lead)[0])
                .replace(":segment", "" + site[1]);
        try (var database = Running.database("knot_owner")) {
            assertThatThrownBy(() -> run(database, filled))
                    .isInstanceOfSatisfying(
                            PSQLException.class,
                            e -> assertThat(e.getServerErrorMessage().getConstraint())
                                    .isEqualTo(constraint));
        }
    }

    @DisplayName("Nobody rewrites the log: not the application, not even the owner of the tables")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "knot_app   | update log_entry set person = 'someone else'",
                "knot_app   | delete from log_entry",
                "knot_app   | truncate log_entry",
                "knot_app   | update log_head set id = 0",
                "knot_app   | delete from endpoint",
                "knot_app   | delete from registration",
                "knot_app   | update hand_over set by = 'someone else'",
                "knot_app   | delete from hand_over",
                "knot_owner | update log_entry set person = 'someone else'",
                "knot_owner | delete from log_entry",
                "knot_owner | truncate log_entry cascade",
            })
    void logIsAppendOnly(String user, String sql) throws SQLException {
        Running.site(lead);
        try (var database = Running.database(user)) {
            assertThatThrownBy(() -> run(database, sql))
                    .isInstanceOfSatisfying(
                            PSQLException.class,
                            e -> assertThat(e.getSQLState()).isEqualTo("42501"));
        }
    }

    @DisplayName("Whoever gets round that is found out by the chain")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "update log_entry set person = 'someone else' where id = :id | :id",
                "update log_entry set reason = 'another' where id = :id | :id",
                "delete from log_entry where id = :id | :next",
                "delete from log_entry where id = (select max(id) from log_entry) | :head",
            })
    void tamperingShows(String sql, String broken) throws SQLException {
        Running.site(lead);
        assertThat(lead.get("/api/log/check").expect(200).json().get("whole").asBoolean())
                .isTrue();
        try (var database = Running.database("knot_owner")) {
            database.setAutoCommit(false);
            long head = Long.parseLong(one(database, "select max(id) from log_entry")), id = head - 1;
            run(database, "alter table log_entry disable trigger log_append_only");
            run(database, sql.replace(":id", "" + id));
            long expected = broken.equals(":id") ? id : head;
            assertThat(one(database, "select log_first_broken()")).isEqualTo("" + expected);
            database.rollback();
        }
        assertThat(lead.get("/api/log/check").json().get("whole").asBoolean()).isTrue();
    }

    @Test
    void wordsOfAnOlderVersionBecomeRecords() throws SQLException {
        try (var admin = Running.database("knot_owner")) {
            run(admin, "create schema older");
        }
        try (var database = Running.database("knot_owner")) {
            run(database, "set search_path = older, public");
            Flyway.configure()
                    .dataSource(
                            System.getenv("KNOT_DB_URL") + "?currentSchema=older,public",
                            "knot_owner",
                            System.getenv("KNOT_DB_OWNER_PASSWORD"))
                    .defaultSchema("older")
                    .target("1")
                    .load()
                    .migrate();
            run(database, "insert into site (name, code, zone) values ('Old', 'OLD', 'UTC')");
            run(database, "insert into segment (site_id, name, prefix) values (1, 'Shop', '10.7.0.0/24')");
            for (String words : List.of(
                    "'Front', 'F-01', 'Shop switch 3'", "'front', 'F-01', 'Shop switch4'", "'', '', 'behind the desk'"))
                run(
                        database,
                        "insert into endpoint (site_id, segment_id, kind, kind_version, name, place, outlet, "
                                + "switch_port, tag_code, station, knot)"
                                + " select 1, 1, 'label-printer', 1, 'E' || n, " + words
                                + ", 'T' || n, 'PLAN', 'OPEN' from (select count(*) + 1 as n from endpoint) c");
            run(
                    database,
                    "insert into interface (endpoint_id, site_id, medium, mac) values (3, 1, 'WIRELESS', "
                            + "'00:00:5e:00:53:02'), (3, 1, 'WIRED', '00:00:5e:00:53:01')");
            Flyway.configure()
                    .dataSource(
                            System.getenv("KNOT_DB_URL") + "?currentSchema=older,public",
                            "knot_owner",
                            System.getenv("KNOT_DB_OWNER_PASSWORD"))
                    .defaultSchema("older")
                    .load()
                    .migrate();
            assertThat(one(
                            database,
                            "select string_agg(concat_ws('/', e.name, p.name, o.name, g.name, po.number, "
                                    + "nullif(e.notes, '')), ' ' order by e.id) from endpoint e"
                                    + " left join place p on p.id = e.place_id left join outlet o on o.id = e.outlet_id"
                                    + " left join port po on po.id = e.port_id left join gear g on g.id = po.gear_id"))
                    .isEqualTo("E1/Front/F-01/Shop switch/3 E2/Front/F-01/Shop switch/4 E3/Port: behind the desk");
            assertThat(one(database, "select string_agg(mac::text, ' ') from interface where counts"))
                    .isEqualTo("00:00:5e:00:53:01");
            run(database, "drop schema older cascade");
        }
    }

    @Test
    void noSecretIsStored() throws SQLException {
        try (var database = Running.database("knot_owner")) {
            assertThat(one(database, "select min(password_hash) from person")).startsWith("{sha-bcrypt}$2a$12$");
            assertThat(one(
                            database,
                            "select count(*) from log_entry where after::text like '%" + Running.PASSWORD + "%'"))
                    .isEqualTo("0");
        }
    }
}
