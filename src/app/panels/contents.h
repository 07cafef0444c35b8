#pragma once
// Contents: everything in the project, by kind and group.

#include <QTreeWidget>

#include "app/base/session.h"

namespace erdwerk::app {

class Contents : public QTreeWidget {
    Q_OBJECT
public:
    explicit Contents(Session& session, QWidget* parent = nullptr);

Q_SIGNALS:
    void showObject(ObjectId id);
    void deletePressed();

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void refresh();
    void showSelection();
    void renamed(QTreeWidgetItem* item);

    Session& session_;
    document::Document shown_;
    bool filling_ = false;
};

}  // namespace erdwerk::app
