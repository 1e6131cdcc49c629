package app.knottag.server.demo;

import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Outfit.Variant;
import app.knottag.core.kind.Signal;
import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.runbook.EndpointPlan;
import app.knottag.core.runbook.TypeSheet;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** What somebody who makes no mistake would read at each gate; the demo's endpoints are set up by such a hand. */
public final class CarefulHand {

    private static final DateTimeFormatter SHOWN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss");

    private CarefulHand() {}

    /** Returns the evidence that completes a step. */
    public static Map<String, String> reads(Kind kind, Kind.Step step, EndpointPlan plan, Instant now) {
        var read = new HashMap<String, String>();
        var around = plan.around();
        switch (step.gate().type()) {
            case CHOICE ->
                step.gate().options().stream()
                        .filter(Kind.Option::holds)
                        .findFirst()
                        .ifPresent(o -> read.put("seen", o.value()));
            case FACTS -> plan.serial().ifPresent(s -> read.put("unit", s.substring(Math.max(0, s.length() - 4))));
            case READ_BACK, ADDRESS_SHOWN ->
                TypeSheet.toReadBack(kind, plan).forEach(r -> read.put(TypeSheet.key(r), r.value()));
            case KIT -> {
                for (int i = 0; i < kind.outfit().kit().size(); i++) read.put("item-" + i, "true");
            }
            case MODEL ->
                read.put(
                        "model",
                        around.model().isEmpty()
                                ? kind.outfit().variants().stream()
                                        .filter(Variant::fits)
                                        .map(Variant::model)
                                        .findFirst()
                                        .orElse("X-1")
                                : around.model());
            case SEALS -> {
                String seals = around.answers().getOrDefault(EndpointContext.SEALS, "551801 551802");
                read.putAll(Map.of("read", seals, "reported", seals));
            }
            case NEW_SEALS -> {
                String number = plan.serial().orElse("0").replaceAll("\\D", "");
                read.putAll(Map.of(
                        "case",
                        around.answers().getOrDefault(EndpointContext.CASE, "K-1"),
                        "read",
                        "88" + number + "1 88" + number + "2"));
            }
            case SAME -> read.putAll(Map.of("first", "K-1", "second", "K-1"));
            case NAMES -> read.putAll(Map.of("first", around.name(), "second", around.name()));
            case SIGNAL -> signal(kind, step, read);
            case LEARNED -> {
                read.put("ADDRESS", plan.segment().pools().get(0).from().toString());
                for (var field : List.of(Kind.Field.MASK, Kind.Field.GATEWAY, Kind.Field.RESOLVER_1))
                    plan.planned(field).ifPresent(v -> read.put(field.name(), v));
            }
            case HOLD ->
                kind.reset()
                        .filter(r -> !r.seconds().isEmpty())
                        .ifPresent(r ->
                                read.putAll(Map.of("seconds", "" + r.seconds().get(0), "beeps", "" + r.beeps())));
            case SIZE -> read.putAll(Map.of("maximum", "3726", "typed", "3726"));
            case RELEASE ->
                read.putAll(Map.of("drives", "WX71 WX72", "onThem", "NEW", "owner", "The client's manager"));
            case COUNT -> read.put("count", "" + Math.max(1, step.gate().least()));
            case CLOCK ->
                read.put(
                        "shown",
                        LocalDateTime.ofInstant(now, around.clock().zone()).format(SHOWN));
            case TYPE_SHEET, OPENINGS, CONFIRMED -> {
                // Nothing is read here.
            }
        }
        if (!step.needs().isEmpty()) read.put("person", "Lore Winter");
        if (step.gate().type() == GateType.ADDRESS_SHOWN)
            plan.address().ifPresent(a -> read.put("ADDRESS", a.toString()));
        return read;
    }

    private static void signal(Kind kind, Kind.Step step, Map<String, String> read) {
        kind.signals().stream()
                .filter(s -> s.part().equals(step.gate().part()) && s.holds())
                .findFirst()
                .ifPresent(s -> {
                    read.putAll(
                            Map.of("steadiness", s.steadiness().name(), "colour", s.colour(), "beeps", "" + s.beeps()));
                    if (s.beep() != Signal.Beep.NONE) read.put("beep", s.beep().name());
                });
    }
}
