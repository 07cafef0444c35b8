#pragma once
// Plan sheets along an alignment: at which scale, on which paper, with which profile.

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>

#include "app/base/session.h"
#include "core/operations/sheets.h"

namespace erdwerk::app {

/// Stays open beside the plan and says how many sheets it would make.
class SheetsAlongDialog : public QDialog {
    Q_OBJECT
public:
    SheetsAlongDialog(Session& session, ObjectId alignment, QWidget* parent);

Q_SIGNALS:
    void made();

private:
    [[nodiscard]] operations::SheetsAlong options() const;
    void tell();
    void make();

    Session& session_;
    QComboBox* alignment_;
    QComboBox* profile_;
    QLineEdit* scale_;
    QComboBox* paper_;
    QLabel* result_;
    QPushButton* make_;
};

}  // namespace erdwerk::app
