-- On numbered stock the paper may have another number than was reckoned with: the sheet then belongs to that number.
GRANT UPDATE (check_number_id) ON document TO ${appUser};
