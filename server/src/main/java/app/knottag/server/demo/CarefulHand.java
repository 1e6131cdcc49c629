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
                TypeSheet.toReadBack(kind, plan, step.gate().part())
                        .forEach(r -> read.put(TypeSheet.key(r), r.value()));
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
            case LEARNED -> learned(plan, read);
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
            case TYPE_SHEET, WORKSHEET, OPENINGS, CONFIRMED -> {
                // Nothing is read here.
            }
        }
        if (!step.needs().isEmpty()) read.put("person", "Lore Winter");
        if (step.gate().type() == GateType.ADDRESS_SHOWN)
            plan.address().ifPresent(a -> read.put("ADDRESS", a.toString()));
        return read;
    }

    private static void learned(EndpointPlan plan, Map<String, String> read) {
        read.put("ADDRESS", plan.segment().pools().get(0).from().toString());
        for (var field : List.of(Kind.Field.MASK, Kind.Field.GATEWAY, Kind.Field.RESOLVER_1))
            plan.planned(field).ifPresent(v -> read.put(field.name(), v));
    }

    /** Returns what such a hand keys in on the worksheet of a gate, from sound labels. */
    public static Map<String, String> figures(Kind.Gate gate) {
        var figures = new HashMap<>(gate.figures());
        figures.putAll(
                switch (gate.sheet()) {
                    case "supply" -> Map.of("supply", "2", "parts/2/hold", "0.5");
                    case "cable" -> Map.of("length", "12", "section", "0.75", "current", "0.6");
                    case "outage" -> Map.of("start", "95", "pause", "120");
                    case "switched" -> Map.of("rating", "2300", "loads/0/watts", "14", "loads/1/watts", "10");
                    case "drives" -> Map.of("drives/0/size", "4 TB", "drives/1/size", "4 TB");
                    case "mail" ->
                        Map.of(
                                "relay",
                                "mail.provider.example",
                                "user",
                                "copier@shop.example",
                                "sender",
                                "copier@shop.example");
                    case "strip" -> Map.of("loads/0/watts", "65", "loads/0/number", "3");
                    case "hub" -> Map.of("people", "3");
                    default -> Map.of();
                });
        return figures;
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
