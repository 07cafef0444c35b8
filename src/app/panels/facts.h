#pragma once
// Facts: the figures of the selection, its settings, what depends on it.

#include <QScrollArea>

#include "app/kinds/facts_form.h"

namespace erdwerk::app {

class Facts : public QScrollArea {
    Q_OBJECT
public:
    explicit Facts(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    static void project(FactsForm& form);
    static void many(FactsForm& form);
    /// What any objects have in common to be set.
    static void commonSettings(FactsForm& form, const std::vector<ObjectId>& objects);
    /// What depends on an object.
    static void dependents(FactsForm& form, ObjectId id);

    Session& session_;
};

}  // namespace erdwerk::app
