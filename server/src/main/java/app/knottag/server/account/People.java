package app.knottag.server.account;

import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** People who may sign in, and invitations to become one. */
@Mapper
interface People {

    record Row(long id, String name, Role role, String passwordHash, int epoch, boolean closed) {}

    /**
     * What counts on each request.
     *
     * @param sites those that they see, with blanks between them, or null for all
     */
    record Now(String name, Role role, int epoch, @Nullable String sites) {
        Scope scope() {
            return Optional.ofNullable(sites)
                    .map(s -> Scope.of(Stream.of(s.split(" "))
                            .filter(n -> !n.isEmpty())
                            .map(Long::valueOf)
                            .toList()))
                    .orElse(Scope.EVERYWHERE);
        }
    }

    record Unkeyed(long id, String name) {}

    /** By how the name looks: blanks, capitals and look-alike letters make no other person. */
    @Select(
            "select id, name, role, password_hash, epoch, closed_at is not null as closed from person where name_key = #{key}")
    Optional<Row> find(String key);

    /** By the name as it stands, of whoever is signed in: from before there can be two that look alike, and only one is found by that. */
    @Select(
            "select id, name, role, password_hash, epoch, closed_at is not null as closed from person where name = #{name}")
    Optional<Row> named(String name);

    @Select("""
            select name, role, epoch, case when role <> 'LEAD' and not every_site then
              (select coalesce(string_agg(site_id::text, ' '), '') from person_site where person_id = id) end as sites
            from person where id = #{id} and closed_at is null""")
    Optional<Now> now(long id);

    @Select("select id, name, role, password_hash, epoch, closed_at is not null as closed from person where id = #{id}")
    Optional<Row> get(long id);

    record PersonRow(
            long id,
            String name,
            Role role,
            boolean everySite,
            int version,
            @Nullable Instant closedAt,
            @Nullable Instant lastSeen,
            int signedIn) {}

    /** That somebody works at a site. */
    record WorksAt(long personId, long siteId, String site) {}

    @Select("""
            select w.person_id, w.site_id, s.name as site from person_site w join site s on s.id = w.site_id
            order by s.name, s.id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<WorksAt> worksAt();

    @Select("select every_site from person where id = #{id}")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    boolean everySite(long id);

    @Delete("delete from person_site where person_id = #{personId}")
    void leaveSites(long personId);

    @Insert("""
            <script>insert into person_site (person_id, site_id) select #{personId}, id from site where id in
            <foreach collection="sites" item="s" open="(" separator="," close=")">#{s}</foreach></script>""")
    int joinSites(@Param("personId") long personId, @Param("sites") Set<Long> sites);

    @Select("""
            select p.id, p.name, p.role, p.every_site, p.version, p.closed_at,
              (select max(i.at) from sign_in i where i.person_id = p.id and i.what = 'ENTERED') as last_seen,
              (select count(*) from spring_session s
                where s.principal_name = p.name and s.expiry_time > extract(epoch from now()) * 1000) as signed_in
            from person p order by p.closed_at is not null, p.name, p.id""")
    List<PersonRow> all();

    /** Everybody who can still manage people; nobody else changes that meanwhile. */
    @Select("select id from person where role = 'LEAD' and closed_at is null order by id for update")
    List<Long> leads();

    @Update("""
            update person set role = #{role}, every_site = #{everySite}, version = version + 1,
              closed_at = case when #{closed} then coalesce(closed_at, now()) end,
              epoch = epoch + case when #{closed} and closed_at is null then 1 else 0 end
            where id = #{id} and version = #{version}""")
    int change(
            @Param("id") long id,
            @Param("version") int version,
            @Param("role") Role role,
            @Param("everySite") boolean everySite,
            @Param("closed") boolean closed);

    @Update("update person set epoch = epoch + 1 where id = #{id}")
    void endSessions(long id);

    @Update("update person set password_hash = #{hash}, epoch = epoch + 1 where id = #{id}")
    void password(@Param("id") long id, @Param("hash") String hash);

    @Select("select count(*) from person")
    int count();

    @Insert("insert into person (name, name_key, role, password_hash) values (#{name}, #{key}, #{role}, #{hash})")
    void add(
            @Param("name") String name, @Param("key") String key, @Param("role") Role role, @Param("hash") String hash);

    @Select("select id, name from person where name_key is null order by id")
    List<Unkeyed> unkeyed();

    @Update("update person set name_key = #{key} where id = #{id}")
    void key(@Param("id") long id, @Param("key") String key);

    @Insert("""
            insert into invitation (token_hash, role, expires_at, first_lead, invited_by, person_id)
            values (#{hash}, #{i.role}, #{i.expiresAt}, #{i.first}, #{i.by}, #{i.personId})""")
    void invite(@Param("hash") byte[] hash, @Param("i") Invited invited);

    /** @param personId whose password is to be set, or null when somebody new is to come */
    record Invited(
            Role role,
            Instant expiresAt,
            boolean first,
            String by,
            @Nullable Long personId) {}

    /** @param person whose password it sets, or null when somebody new is to come */
    record OpenLink(
            long id,
            Role role,
            String invitedBy,
            Instant madeAt,
            Instant expiresAt,
            @Nullable String person) {}

    @Select("""
            select i.id, i.role, i.invited_by, i.made_at, i.expires_at, p.name as person
            from invitation i left join person p on p.id = i.person_id
            where i.used_at is null and i.withdrawn_at is null and i.expires_at > now() and not i.first_lead order by i.id""")
    List<OpenLink> open();

    @Update("update invitation set withdrawn_at = now() where id = #{id} and used_at is null and withdrawn_at is null")
    int withdraw(long id);

    @Update("""
            update invitation set withdrawn_at = now()
            where person_id = #{personId} and used_at is null and withdrawn_at is null""")
    void withdrawLinks(long personId);

    /** Whose password a link sets, as long as it is good and their account is open. */
    @Select("""
            select p.id from invitation i join person p on p.id = i.person_id and p.closed_at is null
            where i.token_hash = #{hash} and i.used_at is null and i.withdrawn_at is null and i.expires_at > now()""")
    Optional<Long> sets(byte[] hash);

    @Update("update invitation set withdrawn_at = now() where first_lead and used_at is null and withdrawn_at is null")
    void withdrawFirst();

    @Select("""
            select role from invitation where token_hash = #{hash} and person_id is null
                and used_at is null and withdrawn_at is null and expires_at > now()
                and (not first_lead or not exists (select 1 from person))""")
    Role invited(byte[] hash);

    @Update("""
            update invitation set used_at = now()
            where token_hash = #{hash} and used_at is null and withdrawn_at is null and expires_at > now()""")
    int use(byte[] hash);
}
