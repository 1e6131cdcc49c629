package app.knottag.server.register;

import app.knottag.server.web.Problem;
import java.util.Map;
import java.util.function.Supplier;
import org.postgresql.util.PSQLException;
import org.springframework.dao.DataIntegrityViolationException;

/** Says in words which rule of the database a change of the registrations ran against: somebody was quicker. */
final class RegistryConflicts {

    private RegistryConflicts() {}

    static <T> T guard(Supplier<T> work) {
        try {
            return work.get();
        } catch (DataIntegrityViolationException e) {
            if (!(e.getRootCause() instanceof PSQLException sql) || sql.getServerErrorMessage() == null) throw e;
            throw switch (String.valueOf(sql.getServerErrorMessage().getConstraint())) {
                case "registration_mac_once" ->
                    Problem.conflict(
                            "mac", "MAC_REGISTERED", "That MAC was registered there just now. Look again.", Map.of());
                case "registration_name_once" ->
                    Problem.conflict(
                            "name", "NAME_TWICE", "That name was just registered there. Choose another.", Map.of());
                case "registration_unit_once" ->
                    Problem.conflict(
                            "endpointId", "registered", "Somebody registered it just now. Look again.", Map.of());
                default -> e;
            };
        }
    }
}
