package org.mossbank.server.mail;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountKeeping;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.Invitation;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Letters about an account alone. Links are made when a letter is written, so that none waits anywhere. */
@Configuration(proxyBeanMethods = false)
class AccountLetters {
    private record Writer(MailSort sort, Function<MailOrder, Optional<Letter>> how) implements LetterWriter {
        @Override
        public Optional<Letter> write(MailOrder order) {
            return how.apply(order);
        }
    }

    /** What letters are written from. */
    @Component
    record Desk(
            Accounts accounts,
            AccountKeeping keeping,
            MailChoiceRepository choices,
            Proofs proofs,
            MailTexts texts,
            TransactionTemplate transactions) {

        AccountView owner(MailOrder order) {
            return Require.known(accounts.byId(List.of(order.to())), order.to());
        }

        /** A one-time link, which proves the address once it is used. */
        String welcome(MailOrder order) {
            return Objects.requireNonNull(transactions.execute(status -> {
                Invitation made = keeping.link(order.to());
                proofs.keep(choices.findById(order.to()).orElseThrow(), made.token());
                return texts.at("/welcome#" + made.token());
            }));
        }
    }

    @Bean
    LetterWriter invitationLetter(Desk desk) {
        return new Writer(
                MailSort.INVITATION,
                order -> Optional.of(desk.owner(order))
                        .filter(a -> a.active() && !a.canSignIn())
                        .map(a -> new Letter("An invitation to Mossbank", """
                                Hello %s,

                                %s asks for your judgement: code is graded in Mossbank, and you sign in there as %s.

                                This link works once, within 14 days, and is yours alone:
                                %s
                                """.formatted(
                                        a.displayName(), order.by(), a.signInName(), desk.welcome(order)))));
    }

    @Bean
    LetterWriter lostLetter(Desk desk) {
        return new Writer(
                MailSort.PASSWORD_LOST,
                order -> Optional.of(desk.owner(order))
                        .filter(a -> a.active() && a.hasPassword())
                        .map(a -> new Letter("Another password for Mossbank", """
                                Hello %s,

                                somebody, you we hope, asked for another password for %s. If it was not you, do nothing: the
                                password you have stays as it is.

                                This link works once, within 14 days:
                                %s
                                """.formatted(
                                        a.displayName(), a.signInName(), desk.welcome(order)))));
    }

    @Bean
    LetterWriter addressLetter(Desk desk) {
        return new Writer(
                MailSort.ADDRESS,
                order -> desk.choices()
                        .findById(order.to())
                        .filter(c -> !c.isConfirmed())
                        .map(c -> new Letter("Is this your address?", """
                                Hello %s,

                                at Mossbank you named this address as yours. Say so here, within 14 days:
                                %s

                                If you know nothing of it, do nothing: no further mail comes.
                                """.formatted(
                                desk.owner(order).displayName(),
                                desk.texts().at("/address#" + desk.proofs().make(c))))));
    }
}
