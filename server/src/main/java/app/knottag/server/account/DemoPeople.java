package app.knottag.server.account;

import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** The made-up people of the demo; none unless the application was started as the demo. */
@Component
public class DemoPeople {

    /** A made-up person of the demo, with the password that everyone may know. */
    public record DemoPerson(String name, String password, Role role) {}

    private final boolean active;

    DemoPeople(@Value("${knot.demo.control:}") String control) {
        active = !control.isEmpty();
    }

    public boolean active() {
        return active;
    }

    public List<DemoPerson> all() {
        return active
                ? List.of(
                        new DemoPerson("Imke Rasmund", "tie-it-well-1", Role.LEAD),
                        new DemoPerson("Joris Teel", "tie-it-well-2", Role.TECHNICIAN),
                        new DemoPerson("Pia Onwald", "tie-it-well-3", Role.OFFICE))
                : List.of();
    }
}
