#pragma once
// Parts of a surface as objects: which, from where to where, into which group.

#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLineEdit>

#include "app/base/session.h"
#include "core/operations/extract.h"

namespace erdwerk::app {

/// Stays open beside the plan; remembers the group of each kind.
class ExtractDialog : public QDialog {
    Q_OBJECT
public:
    explicit ExtractDialog(Session& session, QWidget* parent);

private:
    void showKind();
    void extract();
    [[nodiscard]] operations::Extract kind() const;

    Session& session_;
    QComboBox* surface_;
    QComboBox* kind_;
    QCheckBox* index_;
    QLineEdit* from_;
    QLineEdit* to_;
    QComboBox* group_;
    QLabel* result_;
};

}  // namespace erdwerk::app
