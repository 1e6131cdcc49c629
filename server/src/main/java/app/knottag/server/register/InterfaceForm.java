package app.knottag.server.register;

import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.hardware.Mac;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.web.FormReader;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.springframework.stereotype.Component;

/** Reads the whole list of an endpoint's interfaces: each MAC and each medium once, and one of them counts. */
@Component
class InterfaceForm {

    record InterfaceRequest(@NotNull Medium medium, @NotNull String mac, String standsAt, boolean counts) {}

    record InterfacesRequest(@NotNull List<@Valid InterfaceRequest> interfaces) {}

    private final Endpoints endpoints;

    InterfaceForm(Endpoints endpoints) {
        this.endpoints = endpoints;
    }

    List<Interface> read(EndpointStore.Row endpoint, InterfacesRequest b) {
        var form = new FormReader();
        var list = new ArrayList<Interface>();
        var macs = new HashSet<Mac>();
        var media = new HashSet<Medium>();
        for (int i = 0; i < b.interfaces().size(); i++) {
            var wish = b.interfaces().get(i);
            String field = "interfaces/" + i + "/";
            var read = form.value(field + "mac", endpoints.readMac(endpoint.siteId(), endpoint.id(), wish.mac()));
            if (read.isEmpty()) continue;
            var mac = Mac.parse(read.get());
            String stands = form.text(field + "standsAt", wish.standsAt(), false);
            if (!macs.add(mac)) form.add(field + "mac", "twice", mac + " stands in this list already.");
            if (!media.add(wish.medium()))
                form.add(
                        field + "medium",
                        "twice",
                        "There is one " + wish.medium().words() + " interface already.");
            list.add(new Interface(wish.medium(), mac, stands, wish.counts()));
        }
        if (form.clean()
                && !list.isEmpty()
                && list.stream().filter(Interface::counts).count() != 1)
            form.add("interfaces", "one-counts", "Mark the one that is in use: a registration must hold that one.");
        form.refuse();
        return list;
    }
}
