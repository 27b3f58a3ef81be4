package org.mossbank.server.ids;

import org.hibernate.boot.model.TypeContributions;
import org.hibernate.boot.model.TypeContributor;
import org.hibernate.service.ServiceRegistry;

/** Tells Hibernate of the ids: found as a service when the entities are read. */
public final class IdTypes implements TypeContributor {
    @Override
    public void contribute(TypeContributions types, ServiceRegistry registry) {
        types.contributeJavaType(new IdJavaType<>(AccountId.class, AccountId::new));
        types.contributeJavaType(new IdJavaType<>(AnswerId.class, AnswerId::new));
        types.contributeJavaType(new IdJavaType<>(CandidateId.class, CandidateId::new));
        types.contributeJavaType(new IdJavaType<>(CriterionId.class, CriterionId::new));
        types.contributeJavaType(new IdJavaType<>(KindId.class, KindId::new));
        types.contributeJavaType(new IdJavaType<>(PromptId.class, PromptId::new));
        types.contributeJavaType(new IdJavaType<>(RepairId.class, RepairId::new));
        types.contributeJavaType(new IdJavaType<>(SheetAnswerId.class, SheetAnswerId::new));
        types.contributeJavaType(new IdJavaType<>(SheetId.class, SheetId::new));
        types.contributeJavaType(new IdJavaType<>(StudyId.class, StudyId::new));
    }
}
