package org.mossbank.server.shared.database;

import org.springframework.boot.transaction.autoconfigure.TransactionManagerCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.transaction.support.AbstractPlatformTransactionManager;

/** How transactions behave. */
@Configuration(proxyBeanMethods = false)
class Transactions {
    /**
     * Where there is no transaction, nothing is kept for one either: what is read there lets its connection go at once,
     * and not only when the method ends that said that it wants none.
     */
    @Bean
    TransactionManagerCustomizer<AbstractPlatformTransactionManager> nothingKeptWithoutTransaction() {
        return manager -> manager.setTransactionSynchronization(
                AbstractPlatformTransactionManager.SYNCHRONIZATION_ON_ACTUAL_TRANSACTION);
    }
}
