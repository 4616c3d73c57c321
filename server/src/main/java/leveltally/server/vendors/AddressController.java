package leveltally.server.vendors;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PostalAddress;
import leveltally.server.frame.Needs;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Puts an address together in the order of its country; nothing is kept. */
@RestController
@RequestMapping("/api/addresses")
@Needs(Deed.READ)
class AddressController {
    record Country(String code, String name) {}

    private static final List<Country> COUNTRIES = Arrays.stream(Locale.getISOCountries())
            .map(code -> new Country(code, PostalAddress.name(code)))
            .sorted(Comparator.comparing(Country::name))
            .toList();

    /** @param street its lines with breaks between */
    record AddressParts(
            @NotNull @Size(max = 2) String country,
            @NotNull @Size(max = 300) String street,
            @NotNull @Size(max = 80) String town,
            @NotNull @Size(max = 80) String region,
            @NotNull @Size(max = 20) String postalCode,
            boolean named) {}

    record AddressLines(List<String> lines) {}

    @GetMapping("/countries")
    List<Country> countries(Actor by) {
        by.mayDo(Deed.READ);
        return COUNTRIES;
    }

    @GetMapping("/lines")
    AddressLines lines(Actor by, @Valid @ParameterObject @ModelAttribute AddressParts parts) {
        by.mayDo(Deed.READ);
        return new AddressLines(new PostalAddress(
                        parts.country(),
                        List.of(parts.street().split("\n")),
                        parts.town(),
                        parts.region(),
                        parts.postalCode(),
                        parts.named())
                .lines());
    }
}
