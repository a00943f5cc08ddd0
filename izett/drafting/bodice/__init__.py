"""The parts of the bodice draft, in the order of work: bust dart, frame, room for the arm, waist, pieces."""
