package org.mossbank.server.shared;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.github.resilience4j.bulkhead.BulkheadFullException;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import org.springframework.security.authentication.TestingAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.Test;

public class GivingWayTest {
    private final GivingWay one = new GivingWay("one", 1, Duration.ofMillis(1));

    @AfterMethod
    void signOut() {
        SecurityContextHolder.clearContext();
    }

    @Test
    public void worksOnThreadsOfTheLowestPriorityForWhoeverAsked() {
        SecurityContextHolder.getContext().setAuthentication(new TestingAuthenticationToken("orla", ""));

        assertThat(one.run(() -> Thread.currentThread().getPriority())).isEqualTo(Thread.MIN_PRIORITY);
        assertThat(one.run(() ->
                        SecurityContextHolder.getContext().getAuthentication().getName()))
                .isEqualTo("orla");
    }

    @Test
    public void doesNotWaitForItself() {
        assertThat(one.run(() -> one.run(() -> 1))).isEqualTo(1);
    }

    @Test
    public void turnsAwayWhoseTurnDoesNotCome() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch end = new CountDownLatch(1);
        CompletableFuture<Integer> first = CompletableFuture.supplyAsync(() -> one.run(() -> {
            begun.countDown();
            await(end);
            return 1;
        }));
        begun.await();

        assertThatThrownBy(() -> one.run(() -> 2)).isInstanceOf(BulkheadFullException.class);
        end.countDown();
        assertThat(first.join()).isEqualTo(1);
        assertThat(one.run(() -> 3)).isEqualTo(3);
    }

    @Test
    public void aRefusalReachesWhoeverAsked() {
        assertThatThrownBy(() -> one.run(() -> {
                    throw Problem.invalid("file", "is too large");
                }))
                .isInstanceOf(Problem.class);
        assertThatThrownBy(() -> one.run(() -> {
                    throw new StackOverflowError();
                }))
                .isInstanceOf(StackOverflowError.class);
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Heavy work is done by another thread: it tells how far it is all the same, and ends when it is not wanted. */
    @Test
    public void whoeverFollowsTheWorkFollowsItIntoItsThread() {
        GivingWay way = new GivingWay("followed", 1, java.time.Duration.ofSeconds(5));
        Progress progress = new Progress();
        progress.follow(() -> way.run(() -> {
            Progress.stage("reading", 10);
            Progress.advance(4);
            return true;
        }));
        assertThat(progress.seen()).isEqualTo(new Progress.Seen("reading", 4, 10));
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> progress.follow(() -> way.run(() -> {
                    progress.giveUp();
                    Progress.advance(1);
                    return true;
                })))
                .isInstanceOf(Progress.Unwanted.class);
    }
}
