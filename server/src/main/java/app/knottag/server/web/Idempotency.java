package app.knottag.server.web;

import app.knottag.server.db.Json;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Makes a create safe to send twice: the second time gives the first answer and changes nothing. */
@Component
public class Idempotency {

    @Mapper
    interface Store {
        @Insert(
                "insert into idempotency (person, key, fingerprint) values (#{person}, #{key}, #{fingerprint}) on conflict do nothing")
        int claim(@Param("person") String person, @Param("key") String key, @Param("fingerprint") byte[] fingerprint);

        @Select("select fingerprint, answer from idempotency where person = #{person} and key = #{key}")
        Kept find(@Param("person") String person, @Param("key") String key);

        @Update("update idempotency set answer = #{answer} where person = #{person} and key = #{key}")
        void answer(@Param("person") String person, @Param("key") String key, @Param("answer") Json answer);

        @Delete("delete from idempotency where at < now() - interval '2 days'")
        void forgetOld();
    }

    record Kept(byte[] fingerprint, Json answer) {}

    private final Store store;
    private final JsonMapper json;

    Idempotency(Store store, JsonMapper json) {
        this.store = store;
        this.json = json;
    }

    /**
     * Runs the work unless this person sent this key before.
     *
     * @param request what was asked for and where, to notice a key used for something else; in the same order in every
     *     process, so neither a map nor a set
     */
    @Transactional
    public <T> T once(String person, String key, List<?> request, Class<T> type, Supplier<T> work) {
        wellFormed(key);
        if (store.claim(person, key, fingerprint(request, type)) == 0)
            return answer(person, key, request, type).orElseThrow();
        T answer = work.get();
        store.answer(person, key, new Json(json.writeValueAsString(answer)));
        return answer;
    }

    /** Returns the answer that this person's key has already; asked alone before work that is long and in no transaction. */
    public <T> Optional<T> answer(String person, String key, List<?> request, Class<T> type) {
        wellFormed(key);
        var kept = store.find(person, key);
        if (kept == null) return Optional.empty();
        if (!MessageDigest.isEqual(kept.fingerprint(), fingerprint(request, type)))
            throw Problem.of(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "idempotency-key-reused",
                    "This Idempotency-Key was used for another request.");
        return Optional.of(json.readValue(kept.answer().text(), type));
    }

    private byte[] fingerprint(List<?> request, Class<?> type) {
        return sha256(type.getSimpleName() + json.writeValueAsString(request));
    }

    private static void wellFormed(String key) {
        if (key == null || key.length() < 8 || key.length() > 80)
            throw Problem.of(
                    HttpStatus.BAD_REQUEST,
                    "idempotency-key-missing",
                    "Send a key of your own, 8 to 80 characters, in an Idempotency-Key header, so that sending twice makes one.");
    }

    @Scheduled(cron = "0 40 3 * * *")
    void forgetOld() {
        store.forgetOld();
    }

    public static byte[] sha256(String text) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
