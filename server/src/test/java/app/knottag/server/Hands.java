package app.knottag.server;

import app.knottag.core.kind.GateType;
import app.knottag.server.demo.CarefulHand;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import java.time.Instant;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Somebody who carries a runbook through by hand, with what is read off a sound device. */
public record Hands(Api api, long id) {

    private static final JsonMapper JSON = new JsonMapper();

    public JsonNode book() {
        return api.get("/api/endpoints/" + id + "/runbook").expect(200).json();
    }

    public static JsonNode step(JsonNode book, String key) {
        for (var s : book.get("steps")) if (s.get("key").asString().equals(key)) return s;
        throw new AssertionError("no step " + key + " in " + book.get("steps"));
    }

    public Api.Answer act(String key, String action, Map<String, String> evidence) {
        return api.seen(id)
                .send(
                        "PUT",
                        "/api/endpoints/" + id + "/runbook/steps/" + key,
                        JSON.writeValueAsString(Map.of("action", action, "evidence", evidence)));
    }

    /** Returns what such a hand reads at a step. */
    public Map<String, String> reads(String key) {
        var runbooks = Running.bean(Runbooks.class);
        var row = Running.bean(Endpoints.class).get(id);
        var kind = runbooks.runbook(row).kind();
        return CarefulHand.reads(kind, kind.step(key), runbooks.plan(row), Instant.now());
    }

    /** Does what a step asks for beside reading: its worksheet is filled, and what stands open closed. */
    public void prepare(String key) {
        var type = GateType.valueOf(step(book(), key).at("/gate/type").asString());
        if (type == GateType.WORKSHEET) figures(key);
        if (type == GateType.OPENINGS)
            for (var o : book().get("openings"))
                if (!o.get("closed").asBoolean()) close(o.get("key").asString());
    }

    private void figures(String key) {
        var runbooks = Running.bean(Runbooks.class);
        var row = Running.bean(Endpoints.class).get(id);
        var gate = runbooks.runbook(row).kind().step(key).gate();
        api.ifMatch = "\"0\"";
        api.send(
                        "PUT",
                        "/api/endpoints/" + id + "/worksheets/" + gate.sheet(),
                        JSON.writeValueAsString(Map.of("figures", CarefulHand.figures(gate))))
                .expect(200);
    }

    public void close(String opening) {
        api.seen(id)
                .put("/api/endpoints/" + id + "/runbook/openings/" + opening, "{'closed':true}")
                .expect(200);
    }

    /** Does what is left of the runbook, in its order, up to a step or to the sign-off. */
    public void carry(String before) {
        for (var s : book().get("steps")) {
            String key = s.get("key").asString();
            if (key.equals(before) || s.at("/gate/type").asString().equals(GateType.CONFIRMED.name())) return;
            if (s.get("status").asString().matches("PASSED|SKIPPED")) continue;
            prepare(key);
            var after = step(act(key, "COMPLETE", reads(key)).expect(200).json(), key);
            if (!after.get("status").asString().equals("PASSED"))
                throw new AssertionError(key + " is not done: " + after.get("findings"));
        }
    }
}
