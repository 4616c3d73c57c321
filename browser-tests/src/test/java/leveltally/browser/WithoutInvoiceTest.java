package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** Every other way to pay: without an invoice, from a schedule, by wire, and a run in all its ways at once. */
class WithoutInvoiceTest {
    private static final Desk DESK = Desk.shared();

    private static Running bank;

    @BeforeAll
    static void another() {
        bank = Running.demo();
        DESK.visit(bank);
    }

    @AfterAll
    static void gone() {
        DESK.visit(null);
        bank.stop();
    }

    private static void accessible() {
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
    }

    @Test
    void rentAndAPayeeWhoIsPaidOnceArePaidWithoutAnInvoice() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/schedules");
        DESK.pick("Ticket hall lease");
        DESK.see("passed over: paid with the deposit, by agreement");
        accessible();
        DESK.click("Pay what falls due…");
        DESK.click("Take all 3 in");
        DESK.see("5400 Galley 1,500.00; 5500 Harbour dues 350.00");
        DESK.see("3 payments");
        // the next row is begun by keyboard
        DESK.find(By.name("vendor-2")).sendKeys(Keys.ENTER);
        DESK.until(
                "the cursor is in the next row",
                () -> "vendor-3".equals(DESK.driver.switchTo().activeElement().getDomAttribute("name")));
        DESK.type("Wreck Diver Olsen", Keys.TAB);
        DESK.type("5500/PIER-2 700.00; 5400 -25.00", Keys.TAB);
        DESK.type("SALVAGE", Keys.TAB);
        DESK.type("675");
        DESK.see("A payee who is paid once");
        accessible();
        DESK.fill("Address, line by line", "3 Slip Lane");
        DESK.click("Enter the payee");
        DESK.see("A controller confirms it before the batch can be sent");
        DESK.see("a second person confirms its address before this can be sent");
        DESK.click("Make the batch");
        DESK.see("one-time payee");
        DESK.see("HALL 2026-11: 5400 Galley");
        String batch = DESK.driver.getCurrentUrl().replaceAll(".*/batches/(\\d+).*", "$1");
        DESK.click("Send for approval…");
        DESK.confirm();
        DESK.see("waits for a second person");

        DESK.sitDown("Ruth Castellane");
        DESK.go("/vendors?text=Wreck");
        DESK.pick("Wreck Diver Olsen");
        DESK.press(Keys.ENTER);
        DESK.click("Confirm");
        DESK.confirmed();

        DESK.sitDown("Ines Okafor");
        DESK.go("/batches/" + batch);
        DESK.click("Send for approval…");
        DESK.confirmed();
        DESK.see("in approval");
        DESK.go("/schedules");
        DESK.pick("Ticket hall lease");
        DESK.see("Next on Tue 15 Dec 2026");
    }

    @Test
    void aWireIsOrderedAtTheBankConfirmedAndPosted() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/print");
        DESK.pick("Deposits by wire");
        DESK.see("1 waits to be ordered at the bank and confirmed.");
        DESK.click("Open its wires");
        DESK.pick("Marlinspike Data");
        assertThat(DESK.text()).doesNotContain("6120191238");
        DESK.click("Show what is typed at the bank");
        DESK.see("6120191238");
        accessible();
        DESK.fill("Its reference", "FT 2411-07");
        DESK.click("The bank sent it");
        DESK.see("Another wire from this account carries FT 2411-07 already.");
        DESK.find(By.name("bankReference")).sendKeys(Keys.chord(Keys.CONTROL, "a"), "FT 2411-08");
        DESK.fill("Its fee", "18");
        DESK.click("The bank sent it");
        DESK.see("W1002 was sent as FT 2411-08.");
        DESK.see("36.00 USD");
        DESK.click("2 confirmed: go to posting");
        DESK.click("Post 2 payments");
        DESK.confirmed();
        DESK.see("is posted in full");
        DESK.until("level", () -> DESK.tally("LEDGER").equals(DESK.tally("LINES")));
        // what was paid ahead waits for its invoice, and the vendor's sheet says when it was paid
        DESK.go("/vendors?text=Halyard");
        DESK.pick("Halyard & Cleat Works");
        DESK.press(Keys.ENTER);
        DESK.see("HC-2027");
        DESK.click("What it was paid");
        DESK.see("Wire FT 2411-07");
        DESK.see("7,450.00");
        DESK.click("Send it by mail…");
        DESK.fill("To", "accounts@halyard.example");
        DESK.confirmed();
        DESK.see("The sheet waits to be sent to accounts@halyard.example.");
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    /** The id that a vendor's page has in its address. */
    private static String vendor(String name) {
        DESK.go("/vendors?text=" + name);
        DESK.pick(name);
        DESK.press(Keys.ENTER);
        DESK.see("the account in time order");
        return DESK.driver.getCurrentUrl().replaceAll(".*/vendors/(\\d+).*", "$1");
    }

    private static final List<String> WAYS = List.of("check", "ACH", "credit transfer, EUR");

    @Test
    void aRunIsPaidThreeWaysAtOnceToTheEnd() {
        DESK.sitDown("Ines Okafor");
        DESK.go("/due?due=2026-12-31&vendors="
                + String.join(".", List.of(vendor("Bollard"), vendor("Marlinspike"), vendor("Gorse"))));
        DESK.click("All ways…");
        DESK.see("The same criteria, asked of every way.");
        DESK.see("credit transfer");
        accessible();
        DESK.fill("Name of the run", "Three ways");
        DESK.confirmed();
        DESK.see("3 batches made. Their invoices are reserved for them.");
        Map<String, String> batches = new HashMap<>();
        for (String way : WAYS) {
            DESK.go("/batches");
            DESK.pick("Three ways, " + way);
            DESK.press(Keys.ENTER);
            DESK.click("Send for approval…");
            DESK.confirmed();
            DESK.see("in approval");
            batches.put(way, DESK.driver.getCurrentUrl().replaceAll(".*/batches/(\\d+).*", "$1"));
        }
        for (String approver : List.of("Maren Lindqvist", "Aldo Ferreira")) {
            WAYS.forEach(way -> ApprovalTest.finish("Three ways, " + way, approver));
        }
        DESK.sitDown("Ines Okafor");
        printed(batches.get("check"));
        for (String way : WAYS.subList(1, 3)) {
            DESK.go("/file/" + batches.get(way));
            DESK.click("Make the file of 1 payment");
            DESK.confirmed();
            DESK.see("no answer yet");
            DESK.click("The bank took it");
            DESK.confirmed();
            DESK.click("The bank took 1: go to posting");
        }
        for (String way : WAYS) {
            DESK.go("/post?at=" + batches.get(way));
            DESK.click("Post 1 payment");
            DESK.confirmed();
            DESK.see("Three ways, " + way + ", posted");
            DESK.until("level", () -> DESK.tally("LEDGER").equals(DESK.tally("LINES")));
        }
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    private static void printed(String batch) {
        DESK.go("/print/" + batch);
        DESK.click("Take the turn");
        DESK.confirmed();
        DESK.click("Print 1 check");
        DESK.type(DESK.find(By.cssSelector("[role=dialog] label b")).getText());
        DESK.click("stand-in");
        DESK.confirmed();
        DESK.click("printed well: all good");
        DESK.see("go to posting");
    }
}
