package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** A clerk's hardest half hour: from everything owed to exactly these claims, and back by undo; the strip ends level. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ChoosingTest {
    private static final Desk DESK = Desk.shared();
    private static final int MANY = 120;
    private static final String DUE = "/due?check=2026-11-13&due=2026-11-20&next=2026-11-27";

    private static String firstReference() {
        return DESK.find(By.cssSelector("[data-key] .font-mono")).getText();
    }

    private static void ask(String text) {
        var field = DESK.find(By.cssSelector("[aria-label='Where is this invoice?']"));
        field.sendKeys(Keys.chord(Keys.CONTROL, "a"), text, Keys.ENTER);
    }

    @Test
    @Order(1)
    void everyInvoiceSaysWhereItIs() {
        DESK.sitDown("Ines Okafor");
        DESK.go(DUE);
        DESK.see("left out");
        ask("KU/2093");
        DESK.see("left out: held invoice, wrong sizes");
        DESK.see("can release the hold");
        ask("nothing like it");
        DESK.see("Unknown: no invoice or credit has this");
        DESK.click("left out");
        DESK.see("held vendor");
        DESK.see("Only a controller can release");
        // one that is not due is taken in by one key and marked
        DESK.go("/due?check=2026-11-13&due=2026-11-01&next=none");
        DESK.see("taken");
        ask("FS-5133");
        DESK.see("not due");
        DESK.until(
                "the answer offers to take it in",
                () -> DESK.driver.switchTo().activeElement().getText().contains("Take FS-5133 in"));
        DESK.type(Keys.ENTER);
        DESK.see("taken in by hand");
        DESK.see("forget 1 mark by hand");
    }

    @Test
    @Order(2)
    void wordsThatMoveAndKeptCriteria() {
        DESK.go("/due?check=friday&due=next+friday&next=in+2+weeks");
        DESK.see("friday (Fri 13 Nov)");
        DESK.see("next friday (Fri 20 Nov)");
        DESK.click("Keep or recall…");
        DESK.see("Weekly run, less credits");
        DESK.fill("Keep this sentence as", "Browser's own");
        DESK.click("Keep it");
        DESK.until("it is kept", () -> DESK.text().contains("Browser's own"));
        DESK.click("What the cash allows");
        DESK.see("what is available");
        DESK.click("Cash");
        DESK.see("Four ways to spend");
    }

    @Test
    @Order(3)
    void theCashLineIsDrawnAndCrossedByHand() {
        DESK.go(DUE + "&limit=60000&way=PASS_OVER&panel=cash");
        DESK.see("Cash line");
        DESK.see("pass over and go on");
        DESK.click("stop at the line");
        DESK.until("stop is chosen", () -> DESK.driver.getCurrentUrl().contains("way=STOP_AT_THE_LINE"));
        // the first claim below the line is taken in by one key
        DESK.press(Keys.HOME);
        DESK.until("rows", () -> !DESK.rows().isEmpty());
        DESK.press(Keys.END);
        DESK.until(
                "the last claim is beyond the line or left out",
                () -> DESK.driver.getCurrentUrl().contains("at="));
        DESK.press(Keys.HOME);
        for (int i = 0; i < 60 && !cursorRow().contains("beyond the cash line"); i++) {
            DESK.press(Keys.ARROW_DOWN);
        }
        DESK.press("+");
        DESK.until("it is taken in", () -> cursorRow().contains("taken in by hand"));
        DESK.press("-");
        DESK.until("it is back beyond the line", () -> cursorRow().contains("beyond the cash line"));
    }

    private static String cursorRow() {
        List<org.openqa.selenium.WebElement> rows = DESK.driver.findElements(By.cssSelector("[data-key].bg-cursor"));
        return rows.isEmpty() ? "" : rows.get(0).getText();
    }

    @Test
    @Order(4)
    void aDraftIsWorkedByKeyboardAndUndone() {
        DESK.go(DUE + "&credits=yes&vendorGroup=" + "Yard+%26+engine");
        DESK.see("credits used");
        DESK.click("Make the batch of");
        DESK.fill("Name", "Yard by keyboard");
        DESK.confirmed();
        DESK.see("Yard by keyboard, draft");
        DESK.see("credits used");
        String whole = DESK.tally("LINES");
        String reference = firstReference();
        DESK.press(Keys.HOME, "1");
        DESK.type(".50", Keys.ENTER);
        DESK.see("part");
        DESK.press(Keys.HOME, "o");
        DESK.see("own check");
        DESK.press(Keys.chord(Keys.CONTROL, "z"));
        DESK.until("the own check is undone", () -> !DESK.listed().contains("own check"));
        DESK.press(Keys.chord(Keys.CONTROL, "z"));
        DESK.until("the part payment is undone", () -> DESK.tally("LINES").equals(whole));
        DESK.press(Keys.chord(Keys.CONTROL, "y"));
        DESK.until("it is done again", () -> !DESK.tally("LINES").equals(whole));
        DESK.press(Keys.chord(Keys.CONTROL, "z"));
        DESK.until("and undone", () -> DESK.tally("LINES").equals(whole));
        // split the first invoice off where its claim has several, then take it out and look at the life of the draft
        DESK.press(Keys.HOME, " ");
        DESK.until("taken out", () -> !DESK.listed().contains(reference));
        DESK.click("Changes");
        DESK.see("took out " + reference);
        choose("Gather again");
        DESK.see("exactly what the batch has");
        DESK.type(Keys.ESCAPE);
        DESK.until("vials agree", DESK::isLevel);
        DESK.click("Send for approval…");
        DESK.confirmed();
        DESK.see("in approval");
        // its invoices are free again for who comes next
        choose("Withdraw the batch");
        DESK.confirmed();
    }

    private static void choose(String words) {
        DESK.click("Change ▾");
        DESK.until(
                "the menu offers " + words,
                () -> DESK.driver.findElements(By.cssSelector("[role=menuitem]")).stream()
                        .anyMatch(item -> item.getText().contains(words)));
        DESK.driver.findElements(By.cssSelector("[role=menuitem]")).stream()
                .filter(item -> item.getText().contains(words))
                .findFirst()
                .orElseThrow()
                .click();
    }

    @Test
    @Order(5)
    void creditsThatCoverAllAreOffsetInOneStepAndTakenBack() {
        DESK.go("/vendors?text=Seapink");
        DESK.pick("Seapink Florists");
        DESK.press(Keys.ENTER);
        DESK.see("What is due");
        String vendor = DESK.driver.getCurrentUrl().replaceAll(".*/vendors/(\\d+).*", "$1");
        DESK.go("/due?check=2026-11-13&due=2026-12-31&next=none&credits=yes&panel=left-out&vendors=" + vendor);
        DESK.see("covered by credits");
        DESK.click("Offset ");
        DESK.see("settled without a payment");
        DESK.until("nothing is covered any more", () -> !DESK.text().contains("covered by credits"));
        DESK.click("Undo");
        DESK.see("covered by credits");
    }

    @Test
    @Order(6)
    void theHorizonNarrowsTheList() {
        DESK.go(DUE + "&horizon=yes&panel=horizon");
        DESK.see("late on");
        DESK.see("Cash after run");
        var day = DESK.find(By.cssSelector("[aria-label^='Fri 13 Nov:']"));
        day.sendKeys(Keys.ENTER);
        DESK.until(
                "the days stand in the address",
                () -> DESK.driver.getCurrentUrl().contains("days=2026-11-13"));
        DESK.until("only that day is listed", () -> !DESK.listed().contains("late"));
        DESK.click("Show all days");
        DESK.until("all days again", () -> DESK.listed().contains("late"));
    }

    @Test
    @Order(7)
    void anInvoiceIsEnteredByKeyboardAndAFileIsBroughtIn() throws IOException {
        DESK.go("/enter");
        DESK.see("Entered now");
        DESK.until(
                "the vendor is asked first",
                () -> "vendor".equals(DESK.driver.switchTo().activeElement().getDomAttribute("name")));
        DESK.type("V1014", Keys.TAB, "KEY-1");
        for (int i = 0; i < 10 && !"account-0".equals(name()); i++) {
            DESK.type(Keys.TAB);
        }
        DESK.type("5300", Keys.TAB, "125.40", Keys.ENTER);
        DESK.see("KEY-1");
        DESK.until("it is entered", () -> DESK.text().contains("125.40 USD"));
        // the same again is refused in words, and nothing typed is lost
        DESK.fill("Their reference", "KEY-1");
        for (int i = 0; i < 10 && !"account-0".equals(name()); i++) {
            DESK.type(Keys.TAB);
        }
        DESK.type(Keys.chord(Keys.CONTROL, "d"));
        DESK.type(Keys.TAB, Keys.chord(Keys.CONTROL, "d"), Keys.ENTER);
        DESK.see("is here already as entry");

        // many more than one page of a list, due long after all that other tests look at
        String rows = IntStream.range(0, MANY)
                .mapToObj(n -> "V1014,MANY-" + n + ",2026-11-05,2027-05-31,80.00,5300\n")
                .collect(Collectors.joining());
        Path file = Files.createTempFile("invoices", ".csv");
        Files.writeString(
                file,
                "vendor,reference,invoice_date,due_date,amount,account\n" + rows
                        + "V0000,FILE-2,2026-11-05,,80.00,5300\n");
        DESK.go("/bring-in");
        DESK.see("a sample with all columns");
        DESK.find(By.cssSelector("input[type=file]")).sendKeys(file.toString());
        DESK.see("there is no vendor V0000");
        DESK.click("Bring in only the " + MANY + " good ones");
        DESK.see("is brought in");
        Files.delete(file);
    }

    /** Past the first page of a list its rows stay while the answer to a mark is under way, and after it. */
    @Test
    @Order(8)
    void rowOneHundredAndFiftyIsTakenAndLeftAgain() {
        DESK.go("/due?check=2026-11-13&due=2027-06-30&next=none");
        DESK.press(Keys.END);
        DESK.until("the last row is here", () -> cursorRow().contains("MANY-") && DESK.onTakenRow());
        int place = Integer.parseInt(
                DESK.find(By.cssSelector("[data-key].bg-cursor")).getDomAttribute("aria-rowindex"));
        assertThat(place).isGreaterThan(150);
        String last = cursorRow();
        for (int i = 0; i < 2; i++) {
            DESK.press(Keys.SPACE);
            assertThat(cursorRow()).contains(last.lines().findFirst().orElseThrow());
            assertThat(grey()).isZero();
            DESK.until("it is left out", () -> !DESK.onTakenRow() && DESK.text().contains("forget 1 mark by hand"));
            assertThat(grey()).isZero();
            // twice is back where it was
            DESK.press(Keys.SPACE, Keys.SPACE, Keys.SPACE);
            DESK.until(
                    "it is taken again", () -> DESK.onTakenRow() && !DESK.text().contains("by hand"));
            assertThat(grey()).isZero();
        }
    }

    /** Rows that are drawn and not here. */
    private static long grey() {
        return DESK.driver
                .findElements(By.cssSelector("[role=grid] [aria-hidden=true].border-b"))
                .size();
    }

    private static String name() {
        return DESK.driver.switchTo().activeElement().getDomAttribute("name");
    }

    @Test
    @Order(9)
    void aVendorIsHeldByAClerkAndReleasedByTheController() {
        DESK.go("/vendors?text=Bollard");
        DESK.press(Keys.HOME, Keys.ENTER);
        DESK.see("Bollard Foundry, V1014");
        DESK.see("Paid per year");
        DESK.click("Hold the vendor…");
        DESK.fill("Why it is held", "wrong casting");
        DESK.confirmed();
        DESK.see("wrong casting");
        assertThat(DESK.text()).contains("Only a controller releases");
        String page = DESK.driver.getCurrentUrl().replaceAll(".*(/vendors/\\d+).*", "$1");
        DESK.sitDown("Ruth Castellane");
        DESK.go(page);
        DESK.click("Release the vendor…");
        DESK.fill("Why payments may go on", "cast again");
        DESK.confirmed();
        DESK.until("it is released", () -> !DESK.text().contains("wrong casting"));
        DESK.go("/proof");
        DESK.see("Every law holds");
    }
}
