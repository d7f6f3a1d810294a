// SPDX-License-Identifier: GPL-3.0-or-later
//! The report's parts to tick, and where it goes.
#include <QApplication>
#include <QCheckBox>
#include <QDialog>
#include <QFileDialog>
#include <QGridLayout>
#include <QLabel>
#include <QProgressDialog>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/print/report.h"
#include "app/theme.h"
#include "app/widgets/dialogs.h"
#include "app/widgets/findings.h"

namespace kranich::app {
namespace {

class ReportDialog : public QDialog {
 public:
  ReportDialog(Document& document, QWidget* parent) : QDialog(parent), document_(document) {
    setObjectName("report-dialog");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(QObject::tr("Report"));
    auto* all = new QVBoxLayout(this);
    auto* says = new QLabel(
        QObject::tr("The design as a book: caution and contents first, then what is ticked here."), this);
    says->setWordWrap(true);
    all->addWidget(says);
    auto* grid = new QGridLayout;
    int n = 0;
    const auto parts = report_parts(document_);
    const int rows = static_cast<int>(parts.size() + 1) / 2;
    for (const ReportPart& part : parts) {
      auto* box = new QCheckBox(part.title, this);
      box->setObjectName("part-" + part.id);
      box->setChecked(true);
      grid->addWidget(box, n % rows, n / rows);
      parts_.emplace_back(part.id, box);
      ++n;
    }
    all->addLayout(grid);
    working_ = new QCheckBox(QObject::tr("With the numbers behind every finding"), this);
    working_->setObjectName("report-working");
    working_->setChecked(true);
    all->addWidget(working_);
    state_ = new QLabel(this);
    state_->setObjectName("report-state");
    state_->setWordWrap(true);
    state_->setFont(text_font(8));
    all->addWidget(state_);
    auto* write = new QPushButton(QObject::tr("Write the PDF …"), this);
    write->setObjectName("report-write");
    write->setDefault(true);
    all->addWidget(write, 0, Qt::AlignRight);
    QObject::connect(write, &QPushButton::clicked, this, [this] { ask(); });
    resize(460, sizeHint().height());
  }

 private:
  void ask() {
    const QString path = QFileDialog::getSaveFileName(
        this, QObject::tr("Report"), QString::fromStdString(document_.design().about.name).toLower() + ".pdf",
        QObject::tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    ReportChoice choice;
    choice.working = working_->isChecked();
    for (const auto& [id, box] : parts_)
      if (!box->isChecked()) choice.without.insert(id);
    QProgressDialog progress(QObject::tr("Drawing the pages …"), QObject::tr("Give up"), 0, 100, this);
    progress.setWindowModality(Qt::WindowModal);
    progress.setMinimumDuration(400);
    const auto why = write_report(document_, path, choice, [&](double share) {
      progress.setValue(static_cast<int>(share * 99));  // shows itself, and lets the window live
      return !progress.wasCanceled();
    });
    const bool given_up = progress.wasCanceled();
    progress.reset();
    state_->setText(why        ? *why
                    : given_up ? QObject::tr("given up: nothing was written")
                               : QObject::tr("written to %1").arg(path));
  }

  Document& document_;
  std::vector<std::pair<QString, QCheckBox*>> parts_;
  QCheckBox* working_;
  QLabel* state_;
};

}  // namespace

QWidget* make_report_dialog(Document& document, QWidget* parent) {
  return new ReportDialog(document, parent);
}

}  // namespace kranich::app
