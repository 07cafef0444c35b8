#pragma once
// Contents: everything in the project, by kind and group.

#include <QTreeWidget>
#include <map>

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
    QTreeWidgetItem* addHeading(const QString& title);
    /// What holds a group's members under a heading; the heading itself for what is in none.
    QTreeWidgetItem* holderOf(QTreeWidgetItem* heading, ObjectId group);
    void addItem(QTreeWidgetItem* parent, const objects::Object& object);

    Session& session_;
    document::Document shown_;
    std::map<std::pair<QTreeWidgetItem*, ObjectId>, QTreeWidgetItem*> groups_;  ///< while filling
    bool filling_ = false;
};

}  // namespace erdwerk::app
