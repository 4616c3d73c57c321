package leveltally.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/** From the empty database to a posted check with a clean proof, as a company does it that begins. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class FromNothingTest {
    private static final Desk DESK = Desk.shared();
    private static final DateTimeFormatter NAMED = DateTimeFormatter.ofPattern("MMMM yyyy", Locale.ENGLISH);
    private static final String FIRST = "told-by-telephone-once";
    private static final String OWN = "an-oar-and-a-half-moon";

    private Running own;

    @BeforeAll
    void begin() {
        own = Running.empty();
        DESK.visit(own);
    }

    @AfterAll
    void backToTheOthers() {
        DESK.visit(null);
        own.stop();
    }

    @Test
    void fromNothingToTheFirstCheck() {
        theFirstAdministrator();
        company();
        ledger();
        bankAccount();
        people();
        vendorAndInvoice();
        firstCheck();
        DESK.go("/proof");
        DESK.see("Every law holds");
    }

    private void theFirstAdministrator() {
        DESK.go("/");
        DESK.fill("Setup code", own.setupCode());
        DESK.fill("Name to sign in with", "joss");
        DESK.fill("Full name", "Joss Whitlock");
        DESK.fill("Password, 12 characters", OWN);
        DESK.click("Make the administrator");
        DESK.until("the door is an ordinary one", () -> DESK.text().contains("Sign in"));
        DESK.signIn("joss", OWN);
        DESK.see("From nothing to the first check");
        DESK.see("7 hold up the first check");
        accessible();
        // whoever looks at what is due is told why there is nothing
        DESK.go("/due");
        DESK.see("No bank account is there to pay from yet");
        DESK.see("Nobody is clerk or approver or controller");
        DESK.click("The company");
    }

    private void company() {
        DESK.fill("Name", "Petrel Rowing Club");
        DESK.fill("Address, line by line", "1 Boathouse Lane\nSkerrow 41001");
        DESK.fill("A check is stale after", "3");
        DESK.click("Set up the company");
        DESK.see("A check turns stale after 30 to 730 days");
        DESK.fill("A check is stale after", "180");
        DESK.click("Set up the company");
        DESK.see("as every check names it");
    }

    private void ledger() {
        DESK.go("/ledger?view=accounts");
        DESK.click("Bring in a list…");
        DESK.fill("A code, a name and a kind", """
                code;name;kind
                1010;Cash;cash
                2000;Payables;payables
                4900;Discounts taken;income
                5200;Boats and oars;expense
                5300;Tea and cake;dinner""");
        DESK.click("Look at it");
        DESK.see("“dinner” is no kind of account");
        DESK.click("Bring in 4");
        DESK.pick("Payables");
        DESK.click("Say what it is for…");
        DESK.fill("In which currency", "usd");
        DESK.confirmed();
        DESK.see("It is the account for Payables, USD");
        DESK.pick("Discounts taken");
        DESK.click("Say what it is for…");
        DESK.confirmed();
        DESK.go("/ledger");
        YearMonth month = YearMonth.now();
        DESK.click("Open " + NAMED.format(month));
        DESK.see(", open.");
        // the first run may be next month's already
        DESK.click("Open " + NAMED.format(month.plusMonths(1)));
        DESK.see("Open " + NAMED.format(month.plusMonths(2)));
        accessible();
    }

    private void bankAccount() {
        DESK.go("/bank-accounts");
        DESK.click("Open an account…");
        DESK.fill("What everybody calls it", "Operations");
        DESK.fill("The bank, as it stands", "Skerrow Trust");
        DESK.fill("Routing number", "990044104");
        DESK.fill("Account number", "0044 1772 0931");
        DESK.confirm();
        DESK.see("is no routing number");
        DESK.fill("Routing number", "990044105");
        DESK.confirmed();
        DESK.see("None yet: add checks");
        DESK.click("Add checks with their numbers…");
        DESK.fill("First number", "5001");
        DESK.confirmed();
        DESK.see("the next is 5001");
        accessible();
    }

    private void people() {
        DESK.go("/people");
        add("priya", "Priya Nair", "administrator");
        add("ines", "Ines Okafor", "clerk");
        add("maren", "Maren Lindqvist", "approver");
        add("ruth", "Ruth Castellane", "controller");
        DESK.go("/setup");
        DESK.see("Such a role waits for a second administrator");
        firstSignIn("priya");
        DESK.go("/people");
        for (int i = 0; i < 2; i++) {
            DESK.click("Confirm…");
            DESK.confirmed();
        }
        DESK.see("nothing waits for a second person");
    }

    private static void add(String signIn, String name, String role) {
        DESK.click("Add somebody…");
        DESK.fill("Name to sign in with", signIn);
        DESK.fill("Full name", name);
        DESK.fill("First password", FIRST);
        for (String other : List.of("clerk", "administrator", "approver", "controller")) {
            var box = DESK.find(
                    By.xpath("//*[@role='dialog']//label[contains(., '" + other + "')]//input[@type='checkbox']"));
            if (box.isSelected() != other.equals(role)) {
                box.click();
            }
        }
        DESK.confirmed();
        DESK.see(name);
    }

    /** Whoever got a password from somebody else sets one of their own first. */
    private static void firstSignIn(String who) {
        DESK.signIn(who, FIRST);
        DESK.see("Set one that only you know");
        DESK.fill("Present password", FIRST);
        DESK.fill("New password", OWN);
        DESK.click("Change the password");
        DESK.see("Find anything");
    }

    private void vendorAndInvoice() {
        firstSignIn("ines");
        DESK.go("/vendors/new");
        DESK.fill("Name", "Oakum & Pitch Chandlery");
        DESK.fill("Terms", "soon");
        DESK.fill("Address, line by line", "2 Slipway Road\nSkerrow 41002");
        DESK.click("Enter the vendor");
        DESK.see("are no terms such as");
        DESK.fill("Terms", "2% 10, net 30");
        DESK.click("Enter the vendor");
        DESK.see("waits for a second person; nothing is paid to it");
        accessible();
        String vendor = DESK.driver.getCurrentUrl().replaceAll(".*/vendors/(\\d+).*", "$1");
        DESK.go("/enter?vendor=" + vendor);
        DESK.fill("Their reference", "OP-1");
        DESK.find(By.name("account-0")).sendKeys("5200");
        DESK.find(By.name("amount-0")).sendKeys("1,250.00", Keys.TAB);
        DESK.see("1,250.00");
        DESK.click("Enter it");
        DESK.until(
                "it is entered",
                () -> DESK.text().contains("OP-1") && !DESK.text().contains("It appears here"));

        firstSignIn("ruth");
        DESK.go("/vendors/" + vendor);
        DESK.click("Confirm…");
        DESK.confirmed();
        DESK.until("the address is in force", () -> !DESK.text().contains("nothing is paid to it"));
    }

    private void firstCheck() {
        DESK.signIn("ines", OWN);
        DESK.see("Find anything");
        DESK.go("/due?due=" + LocalDate.now().plusDays(60));
        DESK.click("Make the batch of 1");
        DESK.fill("Name", "The first");
        DESK.confirmed();
        DESK.click("Send for approval…");
        DESK.confirmed();
        DESK.see("in approval");
        String batch = DESK.driver.getCurrentUrl().replaceAll(".*/batches/(\\d+).*", "$1");

        firstSignIn("maren");
        DESK.go("/approval/" + batch);
        DESK.click("Approve…");
        DESK.confirmed();

        DESK.signIn("ines", OWN);
        DESK.see("Find anything");
        DESK.go("/print/" + batch);
        DESK.click("Take the turn");
        DESK.confirmed();
        DESK.click("Print 1 check");
        DESK.type("5001");
        DESK.confirmed();
        // no stand-in outside the demo: the pages open here
        DESK.click("Open the 1 sheet");
        DESK.click("Get the pages");
        DESK.see("Show 1 sheet to print");
        DESK.click("They are printed");
        DESK.click("The sheet is good");
        DESK.click("go to posting");
        DESK.click("Post ");
        DESK.confirmed();
        DESK.see("The first, posted");
        assertThat(DESK.tally("LEDGER")).isEqualTo("1,225.00");
        assertThat(DESK.tally("LINES")).isEqualTo("1,225.00");
    }

    private static void accessible() {
        assertThat(DESK.barriers(new AxeBuilder())).isEmpty();
    }
}
