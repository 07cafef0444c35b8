#pragma once
// Contents: everything in the project, by kind and group, each with an eye that shows or hides it. Rows can
// be filtered by typing, renamed in place, and dragged into groups.

#include <QLineEdit>
#include <QTreeWidget>
#include <map>

#include "app/base/session.h"

namespace erdwerk::app {

class Contents : public QWidget {
    Q_OBJECT
public:
    explicit Contents(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTreeWidget* tree() { return tree_; }
    [[nodiscard]] QLineEdit* filter() { return filter_; }
    /// The row of an object, or null.
    [[nodiscard]] QTreeWidgetItem* rowOf(ObjectId id) const;
    /// As a click on the eye does; of a heading: everything under it.
    void pressEye(QTreeWidgetItem* item);
    /// Hides those of them that can be hidden, or shows them when none is shown.
    void pressEyes(const std::vector<ObjectId>& ids);
    /// What dropping rows on another does.
    void drop(const QList<QTreeWidgetItem*>& rows, const QTreeWidgetItem* onto);

Q_SIGNALS:
    void showObject(ObjectId id);
    void deletePressed();
    void menuWanted(QPoint at);  ///< on the screen, for what is selected

private:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void connectTree();
    void refresh();
    void showEyes();
    void showSelection();
    void applyFilter();
    void renamed(QTreeWidgetItem* item);
    QTreeWidgetItem* addHeading(const QString& title);
    /// What holds a group's members under a heading; the heading itself for what is in none.
    QTreeWidgetItem* holderOf(QTreeWidgetItem* heading, ObjectId group);
    void addItem(QTreeWidgetItem* parent, const objects::Object& object);

    Session& session_;
    QLineEdit* filter_;
    QTreeWidget* tree_;
    document::Document shown_;
    std::map<std::pair<QTreeWidgetItem*, ObjectId>, QTreeWidgetItem*> groups_;  ///< while filling
    std::map<ObjectId, QTreeWidgetItem*> rows_;
    bool filling_ = false;
};

}  // namespace erdwerk::app
