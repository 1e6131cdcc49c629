package app.knottag.server.db;

/** A JSON text as it stands in a jsonb column. */
public record Json(String text) {
    @Override
    public String toString() {
        return text;
    }
}
