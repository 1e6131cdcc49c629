package app.knottag.server.register;

import app.knottag.core.register.RegistryForm;
import app.knottag.server.register.Registrations.Act;
import app.knottag.server.web.FormReader;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Reads what is typed about entries of a registry: one to add, an act on one, a whole list to hand over. */
final class EntryForm {

    /** What is typed about an entry; the facts come from the unit. */
    record EntryRequest(
            @NotNull Long endpointId,
            String name,
            String owner,
            List<String> sharedWith,
            String reason,
            @Nullable Boolean entered) {}

    /** One act; what is issued is for ISSUED, name and people for CHANGE. */
    record ActRequest(
            @NotNull Act act,
            String reason,
            String issued,
            String issuedUsed,
            String name,
            String owner,
            List<String> sharedWith) {}

    /** A hand-over: owner and sharing are for the new entries that name none. */
    record HandOverRequest(
            @NotNull RegistryForm form, Boolean onlyChanges, Boolean preview, String owner, List<String> sharedWith) {}

    /** How an entry is to be called and whose it is; without a name it gets the one that the registry proposes. */
    record People(Optional<String> name, String owner, List<String> sharedWith) {}

    /** An entry that is wanted, and why it is wanted in spite of what speaks against it; the reason may be empty. */
    record EntryWish(long endpointId, People people, String reason, boolean entered) {}

    /** An act on an entry; what does not belong to it is empty. */
    record EntryAct(Act act, String reason, String issued, String issuedUsed, People people) {}

    /** A list that is to be handed over, or looked at only. */
    record ListWish(RegistryForm form, boolean onlyChanges, boolean preview, People people) {}

    private EntryForm() {}

    static EntryWish read(EntryRequest b) {
        var form = new FormReader();
        var people = people(form, b.name(), b.owner(), b.sharedWith());
        String reason = form.text("reason", b.reason(), false);
        form.refuse();
        return new EntryWish(b.endpointId(), people, reason, Boolean.TRUE.equals(b.entered()));
    }

    static EntryAct read(ActRequest b) {
        var form = new FormReader();
        var people = people(form, b.name(), b.owner(), b.sharedWith());
        var act = new EntryAct(
                b.act(),
                form.text("reason", b.reason(), false),
                form.text("issued", b.issued(), false),
                form.text("issuedUsed", b.issuedUsed(), false),
                people);
        form.refuse();
        return act;
    }

    static ListWish read(HandOverRequest b) {
        var form = new FormReader();
        var people = people(form, "", b.owner(), b.sharedWith());
        form.refuse();
        return new ListWish(b.form(), Boolean.TRUE.equals(b.onlyChanges()), Boolean.TRUE.equals(b.preview()), people);
    }

    private static People people(
            FormReader form, @Nullable String name, @Nullable String owner, @Nullable List<String> sharedWith) {
        return new People(
                Optional.ofNullable(name).map(String::strip).filter(n -> !n.isEmpty()),
                form.text("owner", owner, false),
                Optional.ofNullable(sharedWith).orElse(List.of()).stream()
                        .map(s -> form.text("sharedWith", s, false))
                        .filter(s -> !s.isEmpty())
                        .toList());
    }
}
