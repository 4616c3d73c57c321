package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Several checks stopped and voided in one deed, payees asked, entries handed over and taken back. */
class UndoneTest {
    private static final Desk DESK = Desk.shared();

    @Test
    void severalChecksAreStoppedThenVoidedHeldInOneDeed() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/register?state=OUTSTANDING&older=180");
        DESK.list();
        DESK.press(Keys.HOME);
        DESK.press(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
        DESK.see("2 of them can be voided");
        DESK.click("Stop 2 checks…");
        DESK.fill("Why they are stopped", "both lost in one mailbag");
        DESK.confirmed();
        DESK.see("2 checks stopped here");
        DESK.go("/register?state=STOPPED&older=180");
        DESK.list();
        DESK.press(Keys.HOME);
        DESK.see("both lost in one mailbag");
        DESK.press(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
        DESK.click("Void 2 checks…");
        DESK.see("Void 2 checks on");
        DESK.click("come back open");
        DESK.click("come back held");
        DESK.see("open again and held");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.click("Void 2 checks…");
        DESK.fill("Why it is voided", "both lost in one mailbag");
        DESK.confirmed();
        DESK.see("Done: ");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    @Test
    void aPayeeIsAskedAndThatIsWrittenDown() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/stale?days=30");
        DESK.see("How old outstanding checks are");
        DESK.list();
        DESK.press(Keys.END);
        DESK.click("Write down…");
        DESK.fill("What was asked", "promised to present it");
        DESK.confirmed();
        DESK.see("promised to present it");
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
        DESK.click("Hand over as unclaimed…");
        DESK.see("can be handed over to Skerrow from");
    }

    @Test
    void entriesAreHandedOverAndTakenBack() {
        DESK.sitDown("Ruth Castellane");
        DESK.go("/ledger?view=hand-over");
        DESK.see("entries wait");
        DESK.click("Hand entries over…");
        DESK.confirmed();
        DESK.see("The file as CSV");
        DESK.see("0 entries wait");
        DESK.click("Take it back…");
        DESK.fill("Why it is taken back", "its month is closed there");
        DESK.confirmed();
        DESK.see("taken back");
        DESK.see("its month is closed there");
        DESK.until(
                "its entries wait again",
                () -> !DESK.find(By.cssSelector("[aria-label=Criteria]"))
                        .getText()
                        .contains("0 entries wait"));
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
    }
}
