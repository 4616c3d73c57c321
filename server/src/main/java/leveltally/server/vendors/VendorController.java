package leveltally.server.vendors;

import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Vendors to choose from. */
@RestController
@RequestMapping("/api/vendors")
class VendorController {
    private final Vendors vendors;

    VendorController(Vendors vendors) {
        this.vendors = vendors;
    }

    @GetMapping
    List<Vendors.Choice> named(Actor by, @RequestParam(defaultValue = "") String text) {
        by.mayDo(Deed.READ);
        return vendors.named(text);
    }
}
