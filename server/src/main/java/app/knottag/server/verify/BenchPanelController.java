package app.knottag.server.verify;

import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.Question;
import app.knottag.core.reading.ReadingException;
import app.knottag.server.probe.StandIns;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** The bench panel: the stand-ins' labels, small screens, and faults to switch on and off. Not found outside the demo. */
@RestController
class BenchPanelController {

    /** A device on the bench as one stands before it: its label, its screen, what is wrong with it. */
    record Device(
            String id,
            String name,
            String kind,
            String mac,
            String serial,
            String net,
            String screen,
            List<String> lights,
            String clock,
            boolean settable,
            Map<String, String> typed,
            List<Fault> faults,
            List<Fault> possible,
            List<BenchLook> questions) {}

    /** One way to look at a device, and what one sees. */
    record BenchLook(Question question, String words, String seen) {}

    record FaultView(Fault fault, String label) {}

    record Panel(List<Device> devices, List<FaultView> faults) {}

    private final StandIns standIns;
    private final JsonMapper json;

    BenchPanelController(StandIns standIns, JsonMapper json) {
        this.standIns = standIns;
        this.json = json;
    }

    @GetMapping("/api/bench-panel")
    Panel panel() {
        var devices = json.readValue(standIns.get("/devices"), new TypeReference<List<Device>>() {});
        return new Panel(
                devices,
                Arrays.stream(Fault.values())
                        .map(f -> new FaultView(f, FaultBook.shipped().of(f).title()))
                        .toList());
    }

    @PutMapping(path = "/api/bench-panel/{id}/menu", consumes = MediaType.APPLICATION_JSON_VALUE)
    Panel save(@PathVariable String id, @RequestBody Map<String, String> typed) {
        standIns.send("PUT", "/devices/" + id(id) + "/menu", json.writeValueAsString(typed));
        return panel();
    }

    @PostMapping("/api/bench-panel/{id}/restart")
    Panel restart(@PathVariable String id) {
        standIns.send("POST", "/devices/" + id(id) + "/restart", "");
        return panel();
    }

    @PutMapping("/api/bench-panel/{id}/faults/{fault}")
    Panel upset(@PathVariable String id, @PathVariable Fault fault) {
        standIns.send("PUT", "/devices/" + id(id) + "/faults/" + fault, "");
        return panel();
    }

    @DeleteMapping("/api/bench-panel/{id}/faults/{fault}")
    Panel mend(@PathVariable String id, @PathVariable Fault fault) {
        standIns.send("DELETE", "/devices/" + id(id) + "/faults/" + fault, "");
        return panel();
    }

    /** The DHCP server and the portal of the demo: what stands in their files and where the portal is. */
    record Services(String reservations, String leases, String portal, String portalNote) {}

    record ReservationsRequest(@NotNull String text) {}

    @GetMapping("/api/bench-panel/services")
    Services services() {
        return new Services(
                standIns.get("/dhcp/reservations"),
                standIns.get("/dhcp/leases"),
                "http://127." + standIns.secondGroup() + ".0.2:10080/",
                "Sign in as imke with garden-gate, or as joris with green-house.");
    }

    @PutMapping("/api/bench-panel/services")
    Services reserve(@Valid @RequestBody ReservationsRequest b) {
        standIns.send("PUT", "/dhcp/reservations", b.text());
        return services();
    }

    private static String id(String id) {
        if (!id.matches("[a-z0-9-]{1,40}")) throw new ReadingException("no such device: " + id);
        return id;
    }
}
