package app.knottag.server.register;

import app.knottag.core.hardware.Mac;
import app.knottag.core.register.SwapSheet.Facts;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.web.FormReader;
import jakarta.validation.constraints.NotNull;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Reads what the label of a new unit says, which is never that of the old one. */
@Component
public class SwapForm {

    public record SwapRequest(@NotNull String mac, @NotNull String serial, String model, String reason) {}

    /** A unit that comes in the place of another, and why; the reason may be empty. */
    public record NewUnit(Facts facts, String reason) {}

    private final Endpoints endpoints;

    SwapForm(Endpoints endpoints) {
        this.endpoints = endpoints;
    }

    public NewUnit read(EndpointStore.Row was, SwapRequest b) {
        var reader = new FormReader();
        var mac = reader.value("mac", endpoints.readMac(was.siteId(), was.id(), b.mac()))
                .map(Mac::parse);
        String serial = reader.value("serial", endpoints.readSerial(was.siteId(), was.kind(), was.id(), b.serial()))
                .orElse("");
        if (reader.clean() && mac.equals(Optional.ofNullable(was.mac())))
            reader.add("mac", "same-unit", was.mac() + " is the MAC of the old unit. Read the label of the new one.");
        if (reader.clean() && was.serial().equals(serial))
            reader.add(
                    "serial", "same-unit", serial + " is the serial of the old unit. Read the label of the new one.");
        String model = b.model() == null || b.model().isBlank()
                ? was.model()
                : b.model().strip();
        reader.text("model", model, false);
        String reason = reader.text("reason", b.reason(), false);
        reader.refuse();
        return new NewUnit(new Facts(mac, serial, model), reason);
    }
}
