package leveltally.server.vendors;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.SenderIdentifier;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** How documents of a vendor are known as its own. */
@RestController
@RequestMapping("/api/vendors/{id}/identifiers")
@Needs(Deed.READ)
class VendorIdentifierController {
    private static final String ACCOUNT = "account";

    private final VendorIdentifiers identifiers;

    VendorIdentifierController(VendorIdentifiers identifiers) {
        this.identifiers = identifiers;
    }

    /** @param value empty for a bank account, of which only a fingerprint is kept */
    record IdentifierView(String scheme, String words, String value) {}

    record IdentifierKind(String value, String words) {}

    record IdentifiersView(List<IdentifierView> kept, List<IdentifierKind> kinds, boolean mayChange) {}

    record IdentifierWanted(
            @NotNull SenderIdentifier.Kind kind,
            @NotNull @Size(max = 30) String register,
            @NotNull @Size(max = 400) String value) {}

    record IdentifierGone(
            @NotNull @Size(max = 30) String scheme,
            @NotNull @Size(max = 120) String value) {}

    @GetMapping
    IdentifiersView all(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return new IdentifiersView(
                identifiers.of(new VendorId(id)).stream()
                        .map(VendorIdentifierController::view)
                        .toList(),
                Arrays.stream(SenderIdentifier.Kind.values())
                        .map(kind -> new IdentifierKind(kind.name(), kind.words()))
                        .toList(),
                Deed.CHANGE_VENDOR.allowedTo(by.roles()));
    }

    private static IdentifierView view(SenderIdentifier one) {
        String[] parts = one.scheme().split(" ", 2);
        String words = Arrays.stream(SenderIdentifier.Kind.values())
                .filter(kind -> kind.scheme().equals(parts[0]))
                .map(SenderIdentifier.Kind::words)
                .findFirst()
                .orElse(parts[0].equals(ACCOUNT) ? "bank account on documents" : "our number for it");
        String register = parts.length == 1 ? "" : " " + parts[1].toUpperCase(Locale.ROOT);
        return new IdentifierView(one.scheme(), words + register, parts[0].equals(ACCOUNT) ? "" : one.value());
    }

    @PostMapping
    @Needs(Deed.CHANGE_VENDOR)
    void add(Actor by, @PathVariable long id, @Valid @RequestBody IdentifierWanted wanted) {
        identifiers.add(by, new VendorId(id), SenderIdentifier.typed(wanted.kind(), wanted.register(), wanted.value()));
    }

    @PostMapping("/forget")
    @Needs(Deed.CHANGE_VENDOR)
    void forget(Actor by, @PathVariable long id, @Valid @RequestBody IdentifierGone wanted) {
        identifiers.forget(by, new VendorId(id), new SenderIdentifier(wanted.scheme(), wanted.value()));
    }
}
